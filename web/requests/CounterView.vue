<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, nextTick, reactive, ref, watch } from 'vue'
import type { Ref } from 'vue'
import { useRoute } from 'vue-router'
import { readClaimedFile, readCounter, readCounterSpot, uploadCounterFile } from '#contract/requests'
import { answerReasons, counterReasons } from '#core/requests'
import type { CounterField } from '#core/requests'
import { TextEntry, PhonePage, address, call, ProblemNote, useDraft, useLoading } from '#web/kit'
import AroundList from './AroundList.vue'
import CategoryField from './CategoryField.vue'
import FilesField from './FilesField.vue'
import QuestionFields from './QuestionFields.vue'
import { useReportDraft } from './reportDraft'
import SpotField from './SpotField.vue'

/** The public page of a site: one question at a time on a phone, one page on a desk. No account. */
const route = useRoute()
const siteCode = String(route.params.site)
const { draft, recent, sending, waiting, problem, sent, send, again, giveUpWaiting } = useReportDraft(siteCode)
const site = useLoading(() => call(readCounter, { site: siteCode }))
void site.load()
const it = computed(() => site.value.value)
const wide = ref(matchMedia('(min-width: 760px)').matches)
matchMedia('(min-width: 760px)').addEventListener('change', (change) => (wide.value = change.matches))
const wrong = reactive<Record<string, string>>({})

/** A printed code fills in where it is. */
const [codeOfPlace, codeOfAsset] = [route.query.place, route.query.asset].map((one) => (typeof one === 'string' ? one : undefined))
if (codeOfPlace || codeOfAsset)
  call(readCounterSpot, { site: siteCode, place: codeOfPlace, asset: codeOfAsset }).then(
    (spot) => (draft.spot = spot),
    () => (wrong.placeId = 'The printed code is not known here. Choose where it is.'),
  )

const asks = (field: CounterField) => (it.value?.fields[field] ?? 'not_asked') !== 'not_asked'
const needs = (field: CounterField) => it.value?.fields[field] === 'required'
const category = computed(() => it.value?.categories.find((one) => one.id === draft.categoryId) ?? null)
const questions = computed(() => category.value?.questions ?? [])
watch(category, (now) => (draft.formId = now?.formId ?? null))

type Step = 'where' | 'kind' | 'what' | 'who'
const STEP_OF: Record<string, Step> = { placeId: 'where', assetId: 'where', categoryId: 'kind', summary: 'what', description: 'what', fileClaims: 'what' }
const stepOf = (field: string): Step => (field.startsWith('answers.') ? 'kind' : (STEP_OF[field] ?? 'who'))
const steps = computed<Step[]>(() => [
  'where',
  ...(asks('category') && it.value?.categories.length ? (['kind'] as const) : []),
  'what',
  ...((['name', 'email', 'phone', 'wish'] as const).some(asks) ? (['who'] as const) : []),
])
/** A phone that was put away comes back to the question it was at, with what was answered. */
const step = useDraft(() => `counter-step-${siteCode}`, 'where') as Ref<Step>
if (!draft.spot) step.value = 'where'
watch(sent, () => (step.value = 'where'))
const at = computed(() => Math.max(0, steps.value.indexOf(step.value)))
const last = computed(() => wide.value || at.value === steps.value.length - 1)
const shows = (name: Step) => steps.value.includes(name) && (wide.value || step.value === name)

/** Everything that is missing, each at its field, in the words the server would use. */
function findWrong(): void {
  for (const key of Object.keys(wrong)) delete wrong[key]
  if (!draft.spot) wrong.placeId = 'Choose where it is: type part of a name or a room number.'
  if (!draft.summary.trim()) wrong.summary = 'Say in one line what is wrong.'
  if (!draft.description.trim()) wrong.description = 'Say which one exactly, and what it does.'
  const has = {
    category: !!draft.categoryId,
    asset: !!draft.spot?.assetId,
    photo: draft.files.length > 0,
    name: !!draft.name.trim(),
    email: !!draft.email.trim(),
    phone: !!draft.phone.trim(),
    wish: !!draft.wish.trim(),
  }
  for (const reason of [...counterReasons(it.value!.fields, has), ...answerReasons(questions.value, draft.answers)]) wrong[reason.field!] ??= reason.sentence
}
const wrongOn = (name: Step) => Object.keys(wrong).some((field) => stepOf(field) === name)

async function go(to: Step): Promise<void> {
  findWrong()
  const forward = steps.value.indexOf(to) > at.value
  if (forward && wrongOn(step.value)) {
    for (const field of Object.keys(wrong)) if (stepOf(field) !== step.value) delete wrong[field]
    return focusWrong()
  }
  for (const key of Object.keys(wrong)) delete wrong[key]
  step.value = to
  await nextTick()
  document.querySelector<HTMLElement>('[data-step] input, [data-step] textarea')?.focus()
}
function focusWrong(): void {
  void nextTick(() => document.querySelector<HTMLElement>('[aria-invalid="true"]')?.focus())
}

async function submit(): Promise<void> {
  if (!last.value) return go(steps.value[at.value + 1]!)
  findWrong()
  if (!Object.keys(wrong).length) await send()
  for (const reason of problem.value?.reasons ?? []) if (reason.field) wrong[reason.field] = reason.sentence
  const first = steps.value.find(wrongOn)
  if (!first) return
  if (!wide.value) step.value = first
  focusWrong()
}

function chosenWhere(): void {
  delete wrong.placeId
  delete wrong.assetId
  if (!wide.value && !(needs('asset') && !draft.spot?.assetId)) void go(steps.value[1]!)
}
function another(): void {
  again()
}
const upload = (file: Blob, name: string) => call(uploadCounterFile, { site: siteCode, name }, { file })
</script>

<template>
  <PhonePage>
    <header>
      <h1>{{ it?.name ?? 'Help desk' }}</h1>
      <p v-if="it" class="ways">
        <span
          >Call the desk: <a :href="`tel:${it.deskPhone.replace(/ /g, '')}`">{{ it.deskPhone }}</a></span
        >
        <RouterLink :to="`/c/${siteCode}/mine`">What I have sent</RouterLink>
      </p>
    </header>
    <main>
      <ProblemNote v-if="site.problem.value && !it" :problem="site.problem.value" @retry="site.load" />
      <div v-else-if="sent" class="card" role="status">
        <h2>We have it</h2>
        <p>
          Your reference is <strong class="mono reference">{{ sent.number }}</strong>
        </p>
        <p>Keep this private link. It shows how it goes{{ draft.email ? ', and it is in the mail we sent you' : '' }}:</p>
        <p><a :href="sent.link" class="mine">See where it stands</a></p>
        <NButton @click="another">Report something else</NButton>
      </div>
      <form v-else-if="it" id="report" class="form" novalidate @submit.prevent="submit">
        <p v-if="!wide" class="label">Question {{ at + 1 }} of {{ steps.length }}</p>
        <div v-if="shows('where')" class="card" data-step>
          <h2>Where is it?</h2>
          <SpotField
            v-model="draft.spot"
            :site="siteCode"
            :recent="recent"
            :with-assets="asks('asset')"
            needed
            :problem="wrong.placeId ?? wrong.assetId"
            @chosen="chosenWhere"
          />
        </div>
        <div v-if="shows('kind')" class="card" data-step>
          <h2>What is it about?</h2>
          <CategoryField v-model="draft.categoryId" :categories="it.categories" :needed="needs('category')" :problem="wrong.categoryId" />
          <QuestionFields v-model="draft.answers" :questions="questions" :wrong="wrong" />
        </div>
        <div v-if="shows('what')" class="card" data-step>
          <h2>What is wrong?</h2>
          <TextEntry id="summary" v-model="draft.summary" label="In one line (needed)" :max="140" :problem="wrong.summary" />
          <div class="field">
            <label for="description">In more words (needed)</label>
            <ul class="prompts label" aria-hidden="true">
              <li>Which one exactly?</li>
              <li>What does it do?</li>
              <li>Since when?</li>
              <li>Seen with your own eyes, or told?</li>
            </ul>
            <TextEntry
              id="description"
              v-model="draft.description"
              long
              :max="4000"
              label-hidden
              label="In more words (needed): which one exactly, what it does, since when, whether you have seen it yourself or were told"
              :problem="wrong.description"
            />
          </div>
          <FilesField
            v-if="asks('photo')"
            v-model="draft.files"
            :again="(claim) => address(readClaimedFile, { site: siteCode, claim })"
            :upload="upload"
            :label="`A photo says more than words; documents too${needs('photo') ? ' (needed)' : ''}`"
            :problem="wrong.fileClaims"
          />
        </div>
        <AroundList
          v-if="shows('what') || wide"
          :site="siteCode"
          :place-id="draft.spot?.placeId ?? null"
          :asset-id="draft.spot?.assetId ?? null"
          :words="draft.summary"
          :category-id="draft.categoryId"
          :email="draft.email"
          :name="draft.name"
        />
        <div v-if="shows('who')" class="card" data-step>
          <h2>How do we reach you?</h2>
          <p class="label">With a mail address you hear how it goes.</p>
          <TextEntry
            v-if="asks('name')"
            id="name"
            v-model="draft.name"
            :label="`Your name${needs('name') ? ' (needed)' : ''}`"
            :max="120"
            :problem="wrong.name"
            autocomplete="name"
          />
          <TextEntry
            v-if="asks('email')"
            id="email"
            v-model="draft.email"
            :label="`Mail address${needs('email') ? ' (needed)' : ''}`"
            kind="email"
            :problem="wrong.email"
            autocomplete="email"
          />
          <TextEntry
            v-if="asks('phone')"
            id="phone"
            v-model="draft.phone"
            :label="`Phone${needs('phone') ? ' (needed)' : ''}`"
            kind="tel"
            :max="40"
            :problem="wrong.phone"
            autocomplete="tel"
          />
          <TextEntry
            v-if="asks('wish')"
            id="wish"
            v-model="draft.wish"
            :label="`By when would you like it done?${needs('wish') ? ' (needed)' : ''}`"
            :max="200"
            :problem="wrong.wish"
          />
        </div>
        <div v-if="waiting" class="card" role="status">
          <h2>No connection</h2>
          <p>What you wrote is kept on this device and is sent by itself when the line is back. It is sent once.</p>
          <NButton @click="giveUpWaiting">Change something first</NButton>
        </div>
        <p v-if="problem" class="problem" role="alert">{{ problem.message }}</p>
      </form>
      <div v-else class="bones wait" />
    </main>
    <div v-if="it && !sent" class="bar">
      <div>
        <NButton v-if="!wide && at > 0" @click="go(steps[at - 1]!)">Back</NButton>
        <NButton type="primary" attr-type="submit" form="report" :disabled="sending || waiting">
          {{ last ? (sending || waiting ? 'Sending' : 'Send') : 'Next' }}
        </NButton>
      </div>
    </div>
  </PhonePage>
</template>

<style scoped>
.form {
  display: grid;
  gap: 16px;
  grid-template-columns: minmax(0, 1fr);
}
.ways {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 4px 16px;
}
.prompts {
  list-style: none;
  margin: 0;
  padding: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 2px 14px;
}
.reference {
  font-size: 20px;
}
.mine {
  font-weight: 600;
}
</style>
