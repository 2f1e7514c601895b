<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, nextTick, ref, watch } from 'vue'
import { RouterLink, useRoute, useRouter } from 'vue-router'
import { askedAgain, findSpot, readSpot, startHere } from '#contract/spots'
import type { SpotLine, SpotSheet } from '#contract/spots'
import { ORDER_KIND_NAMES } from '#core/orders'
import { readCode } from '#core/places'
import { SignalLine, useCarrying } from '#web/devices'
import { call, CallProblem, freshKey, PhonePage, problemFrom, ProblemNote, ScanButton, shortTime, TextEntry, useSoon } from '#web/kit'
import type { Problem } from '#contract/kit'
import { UnsentCard } from '#web/field'
import SpotForm from './SpotForm.vue'
import type { Said } from './SpotForm.vue'

/** Where a technician stands: scanned or typed; what is open and known there, what was done; reported or started in a few presses. */
const route = useRoute()
const router = useRouter()
const carrying = useCarrying()
const text = ref('')
const rows = ref<SpotLine[]>([])
const nothing = ref('')
/** It could not be looked for. */
const away = ref(false)
const sheet = ref<SpotSheet | null>(null)
const problem = ref<Problem | null>(null)
/** A code that is nobody’s here, or cannot be looked up without signal: it can be reported all the same. */
const code = ref<string | null>(null)
const busy = ref(false)
const refused = ref<CallProblem | null>(null)
const said = ref('')

/** Looks it up; a whole code or tag is opened at once where it was scanned or entered. */
async function find(entered: boolean): Promise<void> {
  const typed = text.value.trim()
  nothing.value = ''
  away.value = false
  rows.value = []
  // What is being reported on is not looked for once more.
  if (!typed || typed === code.value) return
  try {
    const found = (await call(findSpot, { q: typed })).rows
    if (typed !== text.value.trim()) return
    const exact = found.filter((row) => row.code.toLowerCase() === typed.toLowerCase())
    if (entered && exact.length === 1) return void (await open(exact[0]!))
    rows.value = found
    if (!found.length) nothing.value = typed
  } catch (error) {
    if (!(error instanceof CallProblem)) throw error
    away.value = error.problem.status === 0
    nothing.value = typed
  }
}
/** What is shown stays until another place is found. */
const elsewhere = ref(false)
async function lookElsewhere(): Promise<void> {
  elsewhere.value = true
  text.value = ''
  await nextTick()
  document.getElementById('spot')?.focus()
  scrollTo(0, 0)
}
const look = useSoon(() => find(false), 200)

function scanned(label: string): void {
  const read = readCode(label)
  text.value = read.code
  void find(true)
}
const open = ({ placeId, assetId }: Pick<SpotLine, 'placeId' | 'assetId'>) =>
  router.replace({ path: '/rounds/spot', query: assetId === null ? { placeId } : { assetId } })

async function load(): Promise<void> {
  const { placeId, assetId, place, asset } = route.query
  sheet.value = null
  elsewhere.value = false
  code.value = null
  problem.value = null
  refused.value = null
  // A label that was scanned by the phone itself names codes.
  const named = asset ?? place
  if (typeof named === 'string') {
    text.value = named
    await find(true)
    return
  }
  if (!placeId && !assetId) return
  const input = assetId ? { assetId: Number(assetId) } : { placeId: Number(placeId) }
  try {
    sheet.value = await carrying.readAny(readSpot, input)
  } catch (error) {
    problem.value = problemFrom(error)
  }
}
watch(() => route.fullPath, load, { immediate: true })

const about = computed(() => sheet.value?.code ?? code.value ?? '')
const where = computed(() => {
  if (!sheet.value) return { code: code.value ?? '' }
  return sheet.value.assetId === null ? { placeId: sheet.value.placeId } : { assetId: sheet.value.assetId }
})
const form = ref<InstanceType<typeof SpotForm> | null>(null)

async function act(work: () => Promise<void>): Promise<void> {
  busy.value = true
  refused.value = null
  said.value = ''
  try {
    await work()
  } catch (error) {
    if (!(error instanceof CallProblem)) throw error
    refused.value = error
  } finally {
    busy.value = false
  }
}

/** It goes from this phone when there is signal, whatever becomes of the page; each report stands by itself. */
let last = 0
const ownId = () => (last = Math.min(last - 1, -Date.now()))
async function sendPhotos(mark: string, visitId: number, photos: Blob[], name: string): Promise<void> {
  for (const photo of photos) await carrying.record({ name: 'reportPhoto', visitId, input: { mark }, shown: { name } }, photo)
}
const report = (input: Said, photos: Blob[]) =>
  act(async () => {
    const [mark, visitId, shown] = [freshKey(), ownId(), { name: about.value }]
    const answer = await carrying.record<{ number: string }>({ name: 'report', visitId, input: { mark, ...where.value, ...input }, shown })
    await sendPhotos(mark, visitId, photos, about.value)
    form.value?.clear()
    said.value = answer ? `Reported as ${answer.number}. The desk has it.` : 'Kept on this phone. It goes to the desk when there is signal.'
    if (answer && sheet.value) sheet.value = await carrying.readAny(readSpot, where.value)
  })
const start = (input: Said, photos: Blob[]) =>
  act(async () => {
    const mark = freshKey()
    const { visitId } = await call(startHere, { mark, ...where.value, ...input }, { key: mark })
    form.value?.clear()
    await sendPhotos(mark, ownId(), photos, about.value)
    await router.push(`/rounds/${visitId}`)
  })
const again = (requestId: number) =>
  act(async () => {
    const { number } = await call(askedAgain, { requestId })
    said.value = `The desk reads at ${number} that it was asked for again.`
  })
const whyNot = computed(() => {
  if (!sheet.value) return 'What is started has to have a place: report it, and the desk finds out.'
  return carrying.away ? 'Without signal it can be reported; it is started with signal.' : sheet.value.whyNotStart
})
const STATES: Record<string, string> = { planned: 'Planned', on_site: 'On site' }
</script>

<template>
  <PhonePage>
    <header>
      <p><RouterLink to="/rounds">All jobs</RouterLink></p>
      <h1>{{ sheet ? sheet.name : 'On the spot' }}</h1>
      <p v-if="sheet">
        <span class="mono">{{ sheet.code }}</span> {{ sheet.within }}
      </p>
    </header>
    <SignalLine />
    <main>
      <UnsentCard folded />
      <section v-if="!sheet || elsewhere" class="card" aria-label="Where">
        <h2>{{ sheet ? 'Somewhere else' : 'Where are you?' }}</h2>
        <ScanButton what="a label" @code="scanned" />
        <TextEntry id="spot" v-model="text" label="Code, name or tag" kind="search" @input="look" @keydown.enter.prevent="find(true)" />
        <ul v-if="rows.length" class="rows" aria-label="Found">
          <li v-for="row in rows" :key="`${row.placeId}-${row.assetId}`">
            <NButton class="row" @click="open(row)"
              ><span
                ><span class="mono">{{ row.code }}</span> {{ row.name }}<br /><span class="label">{{ row.within }}</span></span
              ></NButton
            >
          </li>
        </ul>
        <template v-if="nothing">
          <p role="status">{{ away ? `${nothing} cannot be looked up without signal.` : `There is no ${nothing} at this site.` }}</p>
          <NButton @click="((code = nothing), (sheet = null), (nothing = ''))">Report something at {{ nothing }}</NButton>
        </template>
      </section>
      <ProblemNote v-if="problem" :problem="problem" @retry="load" />
      <p v-if="said" class="card said" role="status">{{ said }}</p>
      <template v-if="sheet">
        <section v-if="sheet.mine.length" class="card" aria-label="Yours here">
          <h2>Yours here</h2>
          <RouterLink v-for="one in sheet.mine" :key="one.visitId" class="mine" :to="`/rounds/${one.visitId}`"
            ><strong>{{ one.summary }}</strong
            ><br /><span class="label"
              ><span class="mono">{{ one.number }}</span
              >, {{ STATES[one.state] }} {{ shortTime(one.plannedStart) }}</span
            ></RouterLink
          >
        </section>
        <section class="card" aria-label="Open here">
          <h2>Open here</h2>
          <p v-if="!sheet.known.length && !sheet.planned.length" class="label">Nothing is open here.</p>
          <div v-for="one in sheet.known" :key="one.id" class="known">
            <p>
              {{ one.summary }}<br /><span class="label">{{ shortTime(one.since) }}. {{ one.progress.sentence }}</span>
            </p>
            <NButton size="small" :disabled="busy" :aria-label="`Asked for again: ${one.summary}`" @click="again(one.id)">Asked for again</NButton>
          </div>
          <p v-for="(one, index) in sheet.planned" :key="index">
            {{ ORDER_KIND_NAMES[one.kind] }}<br /><span class="label">{{ one.progress.sentence }}</span>
          </p>
        </section>
      </template>
      <SpotForm
        v-if="sheet || code !== null"
        ref="form"
        :key="about"
        :about="about"
        :why-not="whyNot"
        :busy="busy"
        :problem="refused"
        @report="report"
        @start="start"
      />
      <template v-if="sheet">
        <section class="card" aria-label="Done here before">
          <h2>Done here before</h2>
          <p v-for="one in sheet.earlier" :key="one.number">
            <span class="mono label">{{ one.number }}, {{ shortTime(one.finishedAt) }}</span
            ><br />{{ [one.symptom, one.cause, one.fix].filter(Boolean).join(', ') || 'No outcome recorded' }}
          </p>
          <p v-if="!sheet.earlier.length" class="label">Nothing was done here before.</p>
        </section>
        <section v-if="sheet.asset || sheet.access" class="card" aria-label="About it">
          <h2>About it</h2>
          <p v-if="sheet.access">{{ sheet.access }}</p>
          <p v-if="sheet.asset">{{ [sheet.asset.maker, sheet.asset.model, sheet.asset.serial].filter(Boolean).join(', ') || 'Its maker is not known.' }}</p>
        </section>
      </template>
    </main>
    <div v-if="sheet" class="bar">
      <div><NButton @click="lookElsewhere">Somewhere else</NButton></div>
    </div>
  </PhonePage>
</template>

<style scoped>
.rows {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 6px;
}
.row {
  width: 100%;
  height: auto;
  min-height: 52px;
  padding: 6px 12px;
  justify-content: flex-start;
  text-align: left;
  white-space: normal;
}
.known {
  display: grid;
  gap: 6px;
  justify-items: start;
  padding-bottom: 8px;
  border-bottom: 1px solid var(--line);
}
.known:last-child {
  padding-bottom: 0;
  border-bottom: 0;
}
.mine {
  color: var(--ink);
  text-decoration: none;
  padding-left: 10px;
  border-left: 4px solid var(--tide);
}
.said {
  border-left: 4px solid var(--tide);
}
p {
  margin: 0;
}
</style>
