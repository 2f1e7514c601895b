<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, defineAsyncComponent, nextTick, onMounted, onUnmounted, reactive, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { findPeople, keepCallPreset } from '#contract/people'
import type { PersonRow } from '#contract/people'
import type { EnteredChannel } from '#core/requests'
import { enterCall, findSummaries, findTwins, readCaller } from '#contract/requests'
import type { Caller } from '#contract/requests'
import {
  ChoiceEntry,
  SuggestEntry,
  TextEntry,
  call,
  CallProblem,
  DialogBox,
  freshKey,
  useSession,
  useSoon,
  useUndo,
  PickField,
  assetChoices,
  placeChoices,
  useVocabulary,
} from '#web/kit'
import type { Choice } from '#web/kit'
import { DeskFromPlan } from '#web/floorplans'
import CallerPanel from './CallerPanel.vue'

const NoteAsset = defineAsyncComponent(() => import('./NoteAsset.vue'))
/** Somebody is on the line: caller, place, what is wrong. What is typed stays until it is saved. */
const emit = defineEmits<{ close: [] }>()
const session = useSession()
const router = useRouter()
const said = useUndo()
const words = useVocabulary()
void words.ensure()
const DRAFT = 'evrix-call'
const preset = computed(() => session.self?.callPreset ?? {})
const blank = () => ({
  personId: null as number | null,
  name: '',
  phone: '',
  email: '',
  placeId: preset.value.placeId ?? null,
  assetId: null as number | null,
  payerId: null as number | null,
  categoryId: preset.value.categoryId ?? null,
  channel: preset.value.channel ?? ('call' as EnteredChannel),
  summary: '',
  description: preset.value.description ?? '',
  outsideReference: '',
  joinToId: null as number | null,
})
/** What was typed before the form was left, with what its choices are called. */
interface Draft {
  form: Partial<ReturnType<typeof blank>>
  person: Choice | null
  place: Choice | null
  asset: Choice | null
}
const draft = JSON.parse(sessionStorage.getItem(DRAFT) ?? '{"form":{}}') as Draft
const form = reactive({ ...blank(), ...draft.form })
const problem = ref<CallProblem | null>(null)
const person = ref<Choice | null>(draft.person ?? null)
const place = ref<Choice | null>(
  draft.place ?? (form.placeId === preset.value.placeId && form.placeId ? { value: form.placeId, label: preset.value.placeName ?? '' } : null),
)
const asset = ref<Choice | null>(draft.asset ?? null)
const caller = ref<Caller | null>(null)
const twins = ref<{ id: number; number: string; summary: string; receivedAt: string }[]>([])
const summaries = ref<string[]>([])
let key = freshKey()
let people: PersonRow[] = []
watch([form, person, place, asset], () =>
  sessionStorage.setItem(DRAFT, JSON.stringify({ form, person: person.value, place: place.value, asset: asset.value } satisfies Draft)),
)
const focus = (id: string) => void nextTick(() => setTimeout(() => document.getElementById(id)?.focus(), 30))

async function findCaller(q: string): Promise<Choice[]> {
  people = (await call(findPeople, { q, limit: 12 })).rows
  return people.map((one) => ({
    value: one.id,
    label: `${one.name}${one.extension ? `, ext ${one.extension}` : ''}${one.placeName ? `, ${one.placeName}` : ''}`,
  }))
}

/** The caller brings place, payer and contact along; the keyboard goes to what only they can say. */
async function pickCaller(id: number | string | null): Promise<void> {
  const one = people.find((candidate) => candidate.id === id)
  form.personId = one?.id ?? null
  person.value = one ? { value: one.id, label: one.name } : null
  caller.value = null
  if (!one) return
  Object.assign(form, { name: one.name, phone: one.phone ?? '', email: one.email ?? '' })
  if (one.placeId && !form.placeId) pickPlace(one.placeId, one.placeName ?? '')
  focus(form.placeId ? 'call-summary' : 'call-place')
  const known = await call(readCaller, { id: one.id }).catch(() => null)
  if (form.personId !== one.id || !known) return
  caller.value = known
  if (known.place && place.value?.value === known.place.id) place.value = { value: known.place.id, label: known.place.label }
  form.payerId ??= known.payer?.id ?? null
}
/** Nobody in the register: what was typed is their name, or how they are reached, and need not be typed again. */
function unknownCaller(typed: string): void {
  if (typed.includes('@')) form.email ||= typed
  else if (/^[\d\s+()/-]+$/.test(typed)) form.phone ||= typed
  else form.name ||= typed
}
/** Enter in a field sends the form, unless it chooses from a list that is open. */
function enterIn(event: KeyboardEvent): void {
  const target = event.target as HTMLElement
  if (event.isComposing || target.tagName !== 'INPUT' || target.closest('.n-base-selection')) return
  event.preventDefault()
  void save(false)
}
function pickPlace(id: number | null, label: string): void {
  form.placeId = id
  place.value = id ? { value: id, label } : null
  form.assetId = null
  asset.value = null
}
/** What was typed for a machine that is in no register. */
const unknownAsset = ref('')
function pickAsset(id: number | null, label: string): void {
  form.assetId = id
  asset.value = id ? { value: id, label } : null
  unknownAsset.value = ''
}
const lookForTwins = useSoon(async () => {
  const asked = { placeId: form.placeId, assetId: form.assetId, words: form.summary.slice(0, 80) }
  twins.value = asked.placeId
    ? ((await call(findTwins, { placeId: asked.placeId, assetId: asked.assetId ?? undefined, words: asked.words || undefined }).catch(() => null))?.rows ?? [])
    : []
}, 160)
watch(() => [form.placeId, form.assetId, form.summary], lookForTwins, { immediate: true })
watch(
  () => form.summary,
  useSoon(async () => {
    const q = form.summary.trim()
    summaries.value = q.length > 1 ? ((await call(findSummaries, { q: q.slice(0, 80) }).catch(() => null))?.rows ?? []) : []
  }, 120),
)
const joined = computed(() => twins.value.find((one) => one.id === form.joinToId) ?? null)
const join = (id: number) => (form.joinToId = form.joinToId === id ? null : id)

/** Alt 1 to Alt 4 join what is there already, also while typing. */
function joinByKey(event: KeyboardEvent): void {
  const one = event.altKey && /^[1-4]$/.test(event.key) ? twins.value[Number(event.key) - 1] : undefined
  if (!one) return
  event.preventDefault()
  join(one.id)
}
onMounted(() => window.addEventListener('keydown', joinByKey))
onUnmounted(() => window.removeEventListener('keydown', joinByKey))

async function save(thenTriage: boolean): Promise<void> {
  problem.value = null
  try {
    const saved = await call(enterCall, { ...form, placeId: form.placeId! }, { key })
    const into = joined.value
    Object.assign(form, blank())
    person.value = asset.value = caller.value = null
    unknownAsset.value = ''
    place.value = form.placeId ? { value: form.placeId, label: preset.value.placeName ?? '' } : null
    // After the watcher has seen the empty form.
    void nextTick(() => sessionStorage.removeItem(DRAFT))
    key = freshKey()
    said.say(into ? `${saved.number} is joined to ${into.number}.` : `${saved.number} is in Intake.`)
    if (thenTriage) {
      emit('close')
      await router.push(`/desk/intake/request/${saved.id}`)
    } else focus('call-person')
  } catch (error) {
    if (!(error instanceof CallProblem)) throw error
    problem.value = error
    focus(['placeId', 'summary', 'description', 'email'].map((field) => (error.at(field) ? `call-${field.replace('Id', '')}` : '')).find(Boolean) ?? '')
  }
}

async function keepPreset(): Promise<void> {
  const { channel, placeId, categoryId, description } = form
  session.refresh(await call(keepCallPreset, { channel, placeId, placeName: place.value?.label ?? '', categoryId, description }))
  said.say('Your calls start like this from now on.')
}
const CHANNELS = [
  { value: 'call', label: 'By phone' },
  { value: 'visit', label: 'At the desk' },
  { value: 'inspection', label: 'Found on an inspection' },
] as const
</script>

<template>
  <DialogBox title="New call" wide @close="$emit('close')">
    <form class="call" @submit.prevent="save(false)" @keydown.ctrl.enter.prevent="save($event.shiftKey)" @keydown.enter.exact="enterIn">
      <h1>New call</h1>
      <div class="fields">
        <PickField
          id="call-person"
          class="full"
          label="Caller: part of name, extension or mail"
          :value="form.personId"
          :find="findCaller"
          :current="person"
          clearable
          @pick="pickCaller"
          @typed="unknownCaller"
        />
        <TextEntry id="call-name" v-model="form.name" label="Name, if not found" :max="120" />
        <TextEntry id="call-phone" v-model="form.phone" label="Phone" :max="40" />
        <div class="must with-plan">
          <PickField
            id="call-place"
            label="Where (needed)"
            :value="form.placeId"
            :find="placeChoices"
            :current="place"
            :problem="problem?.at('placeId')"
            @pick="(id, label) => (pickPlace(id as number | null, label), focus('call-summary'))"
          />
          <DeskFromPlan of="place" :near="form.placeId" @pick="(id: number, label: string) => (pickPlace(id, label), focus('call-summary'))" />
        </div>
        <div class="with-plan">
          <PickField
            id="call-asset"
            label="Which machine"
            :value="form.assetId"
            :find="(q) => assetChoices(q, form.placeId)"
            :current="asset"
            clearable
            @pick="(id, label) => pickAsset(id as number | null, label)"
            @typed="unknownAsset = $event"
            @unfound="unknownAsset = $event"
          />
          <DeskFromPlan
            v-if="!unknownAsset"
            of="asset"
            :near="form.placeId"
            @pick="(id: number, label: string) => (pickAsset(id, label), focus('call-summary'))"
          />
        </div>
        <NoteAsset
          v-if="unknownAsset"
          class="full"
          :text="unknownAsset"
          :place-id="form.placeId"
          @noted="(made) => (pickAsset(made.value as number, made.label), focus('call-summary'))"
          @leave="unknownAsset = ''"
        />
        <SuggestEntry
          id="call-summary"
          v-model="form.summary"
          class="full must"
          label="In one line (needed)"
          :max="140"
          :offers="summaries"
          :problem="problem?.at('summary')"
        />
        <TextEntry
          id="call-description"
          v-model="form.description"
          class="full"
          long
          label="Which one exactly, what it does, since when, seen by whom"
          :problem="problem?.at('description')"
        />
        <details class="full more">
          <summary>More: mail, kind, payer, how it came, reference, my start</summary>
          <div class="grid">
            <TextEntry id="call-email" v-model="form.email" label="Mail address" :problem="problem?.at('email')" />
            <PickField
              id="call-category"
              label="What it is about"
              :value="form.categoryId"
              :choices="words.choices((all) => all.categories)"
              clearable
              @pick="form.categoryId = $event as number | null"
            />
            <PickField
              id="call-payer"
              label="Who pays"
              :value="form.payerId"
              :choices="words.choices((all) => all.payers)"
              clearable
              @pick="form.payerId = $event as number | null"
            />
            <ChoiceEntry id="call-channel" v-model="form.channel" class="wide" label="How it came" :options="CHANNELS" />
            <TextEntry id="call-reference" v-model="form.outsideReference" label="Reference in another system" :max="80" />
            <NButton @click="keepPreset">Start every call with place, kind, text and way as they stand here</NButton>
          </div>
        </details>
        <p v-if="problem" class="problem full" role="alert">{{ problem.reasons.find((one) => !one.field)?.sentence ?? problem.message }}</p>
        <p v-if="joined" class="full joins" role="status">
          It joins <span class="mono">{{ joined.number }}</span> {{ joined.summary }}.
        </p>
        <div class="full acts">
          <NButton type="primary" attr-type="submit">Save for the next call <kbd>Ctrl Enter</kbd></NButton>
          <NButton @click="save(true)">Save and triage <kbd>Ctrl Shift Enter</kbd></NButton>
          <NButton @click="$emit('close')">Leave, keep as draft <kbd>Esc</kbd></NButton>
        </div>
      </div>
      <CallerPanel :caller="caller" :twins="twins" :joined-id="form.joinToId" @join="join" />
    </form>
  </DialogBox>
</template>

<style scoped>
.with-plan {
  display: flex;
  gap: 6px;
  align-items: end;
}
.with-plan > :first-child {
  flex: 1;
  min-width: 0;
}
.call {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 240px;
  gap: 12px 20px;
}
.call > h1 {
  grid-column: 1 / -1;
}
.fields,
.more .grid {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px 12px;
  align-content: start;
}
.full {
  grid-column: 1 / -1;
}
.must {
  border-left: 3px solid var(--tide);
  padding-left: 8px;
}
.more summary {
  cursor: pointer;
  color: var(--ink-soft);
  font-size: 13px;
}
.more .grid {
  margin-top: 8px;
}
.joins {
  padding: 6px 10px;
  background: var(--shoal);
  border-radius: 6px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
@media (max-width: 760px) {
  .call,
  .fields,
  .more .grid {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
