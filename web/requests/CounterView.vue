<script setup lang="ts">
import { computed, nextTick, reactive, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import { findCounterPlaces, readCounter, reportRequest, uploadCounterPhoto } from '#contract/requests'
import type { CounterPlace } from '#contract/requests'
import { call, CallProblem, freshKey, ProblemNote, useLoading, useSoon } from '#web/kit'

/** The public page of a site: one question at a time on a phone, one page on a desk. No account. */
const route = useRoute()
const siteCode = String(route.params.site)
const DRAFT = `evrix-report-${siteCode}`
interface Draft {
  place: CounterPlace | null
  summary: string
  description: string
  name: string
  email: string
  phone: string
  wish: string
  key: string
}
const blank = (): Draft => ({ place: null, summary: '', description: '', name: '', email: '', phone: '', wish: '', key: freshKey() })
const draft = reactive<Draft>({ ...blank(), ...readDraft() })
const site = useLoading(() => call(readCounter, { site: siteCode }))
void site.load()
const wide = ref(matchMedia('(min-width: 760px)').matches)
matchMedia('(min-width: 760px)').addEventListener('change', (change) => (wide.value = change.matches))

const STEPS = ['where', 'what', 'who'] as const
const step = ref(0)
const search = ref('')
const places = ref<CounterPlace[]>([])
const photos = ref<{ claim: string; url: string }[]>([])
const busy = ref(false)
const problem = ref<CallProblem | null>(null)
const wrong = reactive<Record<string, string>>({})
const sent = ref<{ number: string; link: string } | null>(null)

watch(draft, () => localStorage.setItem(DRAFT, JSON.stringify(draft)))
function readDraft(): Partial<Draft> {
  try {
    return JSON.parse(localStorage.getItem(DRAFT) ?? '{}') as Partial<Draft>
  } catch {
    return {}
  }
}

const look = useSoon(async () => {
  const q = search.value.trim()
  const rows = q ? (await call(findCounterPlaces, { site: siteCode, q }).catch(() => ({ rows: [] }))).rows : []
  if (q === search.value.trim()) places.value = rows
}, 150)
watch(search, look)

function choose(place: CounterPlace): void {
  draft.place = place
  search.value = ''
  places.value = []
  delete wrong.placeId
  if (!wide.value) void go(1)
}

async function addPhoto(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  if (!file) return
  busy.value = true
  delete wrong.file
  try {
    const { claim } = await call(uploadCounterPhoto, { site: siteCode }, { file })
    photos.value.push({ claim, url: URL.createObjectURL(file) })
  } catch (error) {
    wrong.file = error instanceof CallProblem ? (error.reasons[0]?.sentence ?? error.message) : 'The photo was not taken.'
  } finally {
    busy.value = false
    input.value = ''
  }
}

/** What is missing on a step, said at its field. */
function check(name: (typeof STEPS)[number]): boolean {
  if (name === 'where' && !draft.place) wrong.placeId = 'Choose where it is: type part of a name or a room number.'
  if (name === 'what' && !draft.summary.trim()) wrong.summary = 'Say in one line what is wrong.'
  if (name === 'what' && !draft.description.trim()) wrong.description = 'Say which one exactly, and what it does.'
  return !Object.keys(wrong).length
}

async function go(to: number): Promise<void> {
  for (const key of Object.keys(wrong)) delete wrong[key]
  if (to > step.value && !check(STEPS[step.value]!)) return
  step.value = to
  await nextTick()
  document.querySelector<HTMLElement>('[data-step] input, [data-step] textarea')?.focus()
}

async function send(): Promise<void> {
  for (const key of Object.keys(wrong)) delete wrong[key]
  const complete = STEPS.map(check).every(Boolean)
  if (!complete) {
    if (!wide.value) step.value = wrong.placeId ? 0 : 1
    return
  }
  busy.value = true
  problem.value = null
  try {
    const { place, key, ...words } = draft
    sent.value = await call(reportRequest, { ...words, site: siteCode, placeId: place!.id, photoClaims: photos.value.map((photo) => photo.claim) }, { key })
    localStorage.removeItem(DRAFT)
  } catch (error) {
    if (!(error instanceof CallProblem)) throw error
    problem.value = error
    for (const reason of error.reasons) if (reason.field) wrong[reason.field] = reason.sentence
    if (!wide.value) step.value = wrong.placeId ? 0 : wrong.summary || wrong.description ? 1 : 2
  } finally {
    busy.value = false
  }
}

function another(): void {
  Object.assign(draft, blank())
  photos.value = []
  sent.value = null
  step.value = 0
}
const shows = (name: (typeof STEPS)[number]) => wide.value || STEPS[step.value] === name
const last = computed(() => wide.value || step.value === STEPS.length - 1)
</script>

<template>
  <div class="phone roomy">
    <header>
      <h1>{{ site.value.value?.name ?? 'Help desk' }}</h1>
      <p v-if="site.value.value">
        Call the desk: <a :href="`tel:${site.value.value.deskPhone.replace(/ /g, '')}`">{{ site.value.value.deskPhone }}</a>
      </p>
    </header>
    <main>
      <ProblemNote v-if="site.problem.value" :problem="site.problem.value" @retry="site.load" />
      <div v-else-if="sent" class="card" role="status">
        <h2>We have it</h2>
        <p>
          Your reference is <strong class="mono reference">{{ sent.number }}</strong>
        </p>
        <p>Keep this private link. It shows how it goes{{ draft.email ? ', and it is in the mail we sent you' : '' }}:</p>
        <p><a :href="sent.link" class="mine">See where it stands</a></p>
        <button class="push" type="button" @click="another">Report something else</button>
      </div>
      <form v-else id="report" class="form" novalidate @submit.prevent="last ? send() : go(step + 1)">
        <p v-if="!wide" class="label">Question {{ step + 1 }} of {{ STEPS.length }}</p>
        <div v-if="shows('where')" class="card" data-step>
          <h2>Where is it?</h2>
          <div v-if="draft.place" class="picked">
            <p>
              <strong>{{ draft.place.name }}</strong> <span class="mono label">{{ draft.place.code }}</span>
            </p>
            <p class="label">{{ draft.place.within }}</p>
            <button class="push" type="button" @click="draft.place = null">Choose another place</button>
          </div>
          <div v-else class="field">
            <label for="place">Part of a name, or a room number (needed)</label>
            <input
              id="place"
              v-model="search"
              class="entry"
              type="search"
              autocomplete="off"
              role="combobox"
              aria-controls="found"
              :aria-expanded="places.length > 0"
              :aria-invalid="!!wrong.placeId"
            />
            <ul v-if="places.length" id="found" class="found" aria-label="Places found">
              <li v-for="place in places" :key="place.id">
                <button class="plain" type="button" @click="choose(place)">
                  <strong>{{ place.name }}</strong> <span class="mono label">{{ place.code }}</span><br /><span class="label">{{ place.within }}</span>
                </button>
              </li>
            </ul>
            <p v-else-if="search.trim().length > 1" class="label">Nothing found yet. Try the building’s name or the code on the door.</p>
          </div>
          <p v-if="wrong.placeId" class="problem" role="alert">{{ wrong.placeId }}</p>
        </div>
        <div v-if="shows('what')" class="card" data-step>
          <h2>What is wrong?</h2>
          <div class="field">
            <label for="summary">In one line (needed)</label>
            <input id="summary" v-model="draft.summary" class="entry" maxlength="140" :aria-invalid="!!wrong.summary" />
            <p v-if="wrong.summary" class="problem" role="alert">{{ wrong.summary }}</p>
          </div>
          <div class="field">
            <label for="description">Which one exactly, what does it do, since when? Did you see it yourself? (needed)</label>
            <textarea id="description" v-model="draft.description" class="entry" rows="4" maxlength="4000" :aria-invalid="!!wrong.description" />
            <p v-if="wrong.description" class="problem" role="alert">{{ wrong.description }}</p>
          </div>
          <div class="field">
            <label for="photo">A photo says more than words</label>
            <input id="photo" type="file" accept="image/*" class="entry" :disabled="busy || photos.length >= 10" @change="addPhoto" />
            <p v-if="wrong.file" class="problem" role="alert">{{ wrong.file }}</p>
            <div class="thumbs">
              <span v-for="(photo, index) in photos" :key="photo.claim" class="thumb"
                ><img :src="photo.url" :alt="`Photo ${index + 1}`" /><button class="push" type="button" @click="photos.splice(index, 1)">Remove</button></span
              >
            </div>
          </div>
        </div>
        <div v-if="shows('who')" class="card" data-step>
          <h2>How do we reach you?</h2>
          <p class="label">You may leave all of this empty. With a mail address you hear how it goes.</p>
          <div class="field"><label for="name">Your name</label><input id="name" v-model="draft.name" class="entry" autocomplete="name" maxlength="120" /></div>
          <div class="field">
            <label for="email">Mail address</label
            ><input id="email" v-model="draft.email" class="entry" type="email" autocomplete="email" :aria-invalid="!!wrong.email" />
            <p v-if="wrong.email" class="problem" role="alert">{{ wrong.email }}</p>
          </div>
          <div class="field">
            <label for="phone">Phone</label><input id="phone" v-model="draft.phone" class="entry" type="tel" autocomplete="tel" maxlength="40" />
          </div>
          <div class="field">
            <label for="wish">By when would you like it done?</label><input id="wish" v-model="draft.wish" class="entry" maxlength="200" />
          </div>
        </div>
        <p v-if="problem" class="problem" role="alert">{{ problem.message }}</p>
      </form>
    </main>
    <div v-if="!sent && !site.problem.value" class="bar">
      <div>
        <button v-if="!wide && step > 0" class="push" type="button" @click="go(step - 1)">Back</button>
        <button class="push first" type="submit" form="report" :disabled="busy">{{ last ? (busy ? 'Sending' : 'Send') : 'Next' }}</button>
      </div>
    </div>
  </div>
</template>

<style src="../kit/phone.css"></style>
<style scoped>
.form {
  display: grid;
  gap: 16px;
  grid-template-columns: minmax(0, 1fr);
}
.found {
  list-style: none;
  margin: 0;
  padding: 0;
  border: 1px solid var(--line);
  border-radius: 6px;
  overflow: hidden;
}
.found li + li {
  border-top: 1px solid var(--line);
}
.found button {
  width: 100%;
  min-height: 48px;
  padding: 8px 12px;
}
.found button:hover {
  background: var(--shoal-faint);
}
.picked {
  display: grid;
  gap: 4px;
  justify-items: start;
}
.thumb {
  display: grid;
  gap: 4px;
}
.reference {
  font-size: 20px;
}
.mine {
  font-weight: 600;
}
</style>
