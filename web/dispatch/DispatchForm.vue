<script setup lang="ts">
import { NRadio, NRadioGroup } from 'naive-ui/es/radio'
import { NCheckbox, NCheckboxGroup } from 'naive-ui/es/checkbox'
import { NButton } from 'naive-ui/es/button'
import { computed, reactive, ref } from 'vue'
import { isChange } from '#core/events'
import { dispatchOrder, listCandidates } from '#contract/dispatch'
import type { TechnicianChoice } from '#contract/dispatch'
import { addVendor } from '#contract/vendors'
import { papersMissing } from '#core/vendors'
import type { AgreedWindow } from '#contract/orders'
import {
  NumberEntry,
  MomentEntry,
  TextEntry,
  call,
  CallProblem,
  freshKey,
  fromLocalField,
  ProblemNote,
  serverNow,
  spanTime,
  dayOf,
  spell,
  toLocalField,
  useRead,
} from '#web/kit'
import { vendorSays } from './vendorSays'

/** Who goes, and when: those with the trade, on shift and free come first; nothing is hidden. */
const props = defineProps<{
  orderId: number
  version: number
  vendorId?: number | null
  /** Steps that have to be done before anybody goes, and are not. */
  stepsFirst?: readonly string[]
  /** The time agreed with whoever lets people in. */
  window?: AgreedWindow | null
  /** It belongs to where it stands, and is not left. */ fixed?: boolean
}>()
const emit = defineEmits<{ leave: []; done: [number] }>()
const QUARTER = 900_000
const soon = Math.ceil((serverNow().getTime() + 600_000) / QUARTER) * QUARTER
const agreed = computed(() => (props.window && new Date(props.window.until) > serverNow() ? props.window : null))
const start = ref(toLocalField(new Date(Math.max(soon, agreed.value ? new Date(agreed.value.from).getTime() : 0))))
const minutes = ref<number | null>(60)
const chosen = ref<number[]>([])
const sent = ref<number | null>(null)
const problem = ref('')
const despite = ref('')
const despiteWindow = ref('')
const despitePapers = ref('')
const busy = ref(false)
const key = freshKey()

const times = computed(() => {
  const from = fromLocalField(start.value)
  if (Number.isNaN(from.getTime()) || !minutes.value) return null
  return { start: from.toISOString(), end: new Date(from.getTime() + minutes.value * 60_000).toISOString() }
})
const candidates = useRead(listCandidates, () => times.value && { orderId: props.orderId, ...times.value }, {
  holds: true,
  touchedBy: ({ kind }) => isChange(kind),
})

/** It would begin at another time than was agreed. */
const outside = computed(() => agreed.value && times.value && (times.value.start < agreed.value.from || times.value.start >= agreed.value.until))

const isMeant = (vendor: { id: number; hasTrade: boolean }) => vendor.hasTrade || vendor.id === props.vendorId
const chosenVendor = computed(() => candidates.value.value?.vendors.find(({ id }) => id === sent.value))
/** What of their papers has ended by then; the server holds it to be said why they are sent. */
const lacking = computed(() => papersMissing(chosenVendor.value?.papers ?? []))
const adding = ref(false)
const added = reactive({ name: '', email: '' })
const wrongAt = ref<Record<string, string>>({})
let addKey = freshKey()
/** Added on the spot by name and mail, and chosen. */
async function addOne(): Promise<void> {
  busy.value = true
  wrongAt.value = {}
  try {
    const made = await call(addVendor, { name: added.name.trim(), email: added.email.trim() }, { key: addKey })
    await candidates.load()
    sent.value = made.id
    adding.value = false
    Object.assign(added, { name: '', email: '' })
  } catch (error) {
    if (!(error instanceof CallProblem)) throw error
    wrongAt.value = Object.fromEntries(error.reasons.map(({ field, sentence }) => [field ?? 'name', sentence]))
    if (!error.reasons.length) wrongAt.value = { name: error.message }
  } finally {
    addKey = freshKey()
    busy.value = false
  }
}
const fitting = computed(() => candidates.value.value?.vendors.filter(isMeant) ?? [])
const others = computed(() => candidates.value.value?.vendors.filter((vendor) => !isMeant(vendor)) ?? [])
const lists = computed(() => [
  { name: null, rows: fitting.value },
  { name: 'Vendors for other trades', rows: others.value },
])

function notes(one: TechnicianChoice): string[] {
  const { fitness } = one
  return [
    ...(fitness.hasTrade ? [] : ['other trade']),
    ...fitness.lacks.map((skill) => `no ${skill} on that day`),
    ...(fitness.away ? ['away'] : []),
    ...(fitness.onShift || one.onCall ? [] : ['not on shift']),
    ...(fitness.overlapMinutes ? [`${spell(fitness.overlapMinutes)} already planned then`] : []),
  ]
}
const loadShare = (one: TechnicianChoice) => `${Math.min(100, (one.fitness.loadMinutes / 480) * 100)}%`

async function send(): Promise<void> {
  if (!times.value) return void (problem.value = 'Choose a start and a length.')
  busy.value = true
  problem.value = ''
  try {
    const done = await call(
      dispatchOrder,
      {
        id: props.orderId,
        version: props.version,
        technicianIds: chosen.value,
        vendorId: sent.value,
        ...times.value,
        ...(despite.value.trim() ? { despiteSteps: despite.value.trim() } : {}),
        ...(lacking.value.length && despitePapers.value.trim() ? { despitePapers: despitePapers.value.trim() } : {}),
        ...(outside.value && despiteWindow.value.trim() ? { despiteWindow: despiteWindow.value.trim() } : {}),
      },
      { key },
    )
    emit('done', done.version)
  } catch (error) {
    problem.value = error instanceof CallProblem ? (error.reasons[0]?.sentence ?? error.message) : 'It could not be dispatched. Try again.'
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <form id="s-visits-begun" class="dispatch" aria-label="Dispatch" @submit.prevent="send" @keydown.ctrl.enter.prevent="send" @keydown.esc.stop="emit('leave')">
    <div class="when">
      <MomentEntry id="d-start" v-model="start" label="Start" required />
      <NumberEntry id="d-minutes" v-model="minutes" label="Minutes" :least="5" :most="600" :step="5" />
    </div>
    <p v-if="agreed && !outside" class="soft kept">Agreed for {{ spanTime(agreed.from, agreed.until) }}{{ agreed.with ? ` with ${agreed.with}` : '' }}.</p>
    <div v-else-if="agreed" class="first">
      <p>
        Agreed for <strong>{{ spanTime(agreed.from, agreed.until) }}</strong>{{ agreed.with ? ` with ${agreed.with}` : '' }}; this begins at another time.
      </p>
      <TextEntry id="despiteWindow" v-model="despiteWindow" label="Why somebody goes at another time" :max="300" />
    </div>
    <ProblemNote v-if="candidates.problem.value" :problem="candidates.problem.value" @retry="candidates.load" />
    <template v-else-if="candidates.value.value">
      <fieldset>
        <legend>Technicians</legend>
        <NCheckboxGroup v-model:value="chosen">
          <div v-for="one in candidates.value.value.technicians" :key="one.id" class="who">
            <NCheckbox class="name" :value="one.id"
              >{{ one.name }} <span class="soft">{{ one.trades.join(', ') }}</span></NCheckbox
            >
            <span class="soft shift mono">{{ one.shift }}</span>
            <span
              class="load"
              role="img"
              :aria-label="`${spell(one.fitness.loadMinutes)} planned that day`"
              :title="`${spell(one.fitness.loadMinutes)} planned that day`"
              ><span :style="{ width: loadShare(one) }"
            /></span>
            <span class="notes" :class="{ wrong: notes(one).length }">{{
              notes(one).join(', ') || (one.fitness.onShift ? 'free, on shift' : 'free, on call')
            }}</span>
          </div>
        </NCheckboxGroup>
      </fieldset>
      <fieldset>
        <legend>Or a vendor, who gets a pass by mail</legend>
        <NRadioGroup v-model:value="sent" name="vendor">
          <component :is="name ? 'details' : 'div'" v-for="{ name, rows } in lists" :key="name ?? ''">
            <summary v-if="name">{{ name }}</summary>
            <div v-for="one in rows" :key="one.id" class="who vendor">
              <NRadio class="name" :value="one.id"
                >{{ one.name }}
                <span class="soft">{{ [one.service, one.id === vendorId ? 'named on the order' : ''].filter(Boolean).join(', ') }}</span></NRadio
              >
              <span class="notes" :class="{ wrong: papersMissing(one.papers).length }">{{ vendorSays(one) }}</span>
            </div>
          </component>
        </NRadioGroup>
        <p class="more">
          <NButton v-if="sent" text type="primary" class="link" @click="sent = null">No vendor</NButton>
          <NButton v-if="!adding" text type="primary" class="link" @click="adding = true">One who is not in the list</NButton>
        </p>
        <div v-if="adding" class="adding" role="group" aria-label="A vendor who is not in the list" @keydown.enter.stop.prevent="addOne">
          <TextEntry id="vendor-name" v-model="added.name" label="Name" :max="120" :problem="wrongAt.name" />
          <TextEntry id="vendor-email" v-model="added.email" label="Mail address" :max="190" :problem="wrongAt.email" />
          <NButton :disabled="busy || !added.name.trim() || !added.email.trim()" @click="addOne">Add and choose</NButton>
          <NButton quaternary @click="adding = false">Leave it</NButton>
        </div>
      </fieldset>
    </template>
    <div v-if="stepsFirst?.length" class="first">
      <p>
        To be done before anybody goes: <strong>{{ stepsFirst.join('; ') }}</strong>
      </p>
      <TextEntry id="despiteSteps" v-model="despite" label="Why somebody goes all the same" :max="300" />
    </div>
    <div v-if="lacking.length" class="first">
      <p>
        {{ chosenVendor!.name }}: <strong>{{ lacking.map(({ what, until }) => `${what.toLowerCase()} ended ${dayOf(until!)}`).join('; ') }}</strong>
      </p>
      <TextEntry id="despitePapers" v-model="despitePapers" label="Why they are sent all the same" :max="300" />
    </div>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <div class="acts">
      <NButton type="primary" attr-type="submit" :disabled="busy">Dispatch and tell them <kbd>Ctrl Enter</kbd></NButton>
      <NButton v-if="!fixed" @click="emit('leave')">Leave it</NButton>
    </div>
  </form>
</template>

<style scoped>
.kept {
  margin: 0;
}
.dispatch {
  display: grid;
  gap: 12px;
  padding: 12px;
  background: var(--shoal-faint);
  border-radius: 6px;
}
.when {
  display: grid;
  grid-template-columns: 280px 130px;
  gap: 10px;
}
fieldset {
  border: 1px solid var(--line);
  border-radius: 6px;
  background: var(--sheet);
  padding: 6px 10px;
  margin: 0;
  max-height: 300px;
  overflow: auto;
  min-width: 0;
}
.who {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 10px;
  align-items: center;
  padding: 4px 0;
  min-height: 30px;
  cursor: pointer;
}
.name .soft {
  margin-left: 6px;
}
.name {
  flex: 1 1 240px;
}
.shift {
  font-size: 12px;
}
.load {
  width: 60px;
  height: 8px;
  border-radius: 2px;
  box-shadow: inset 0 0 0 1px var(--line-strong);
  overflow: hidden;
}
.load > span {
  display: block;
  height: 100%;
  background: var(--tide);
}
.notes {
  font-size: 12px;
  min-width: 150px;
  color: var(--ink-soft);
}
.notes.wrong {
  color: var(--buoy);
}
.more {
  display: flex;
  gap: 16px;
  margin: 4px 0;
}
.adding {
  display: grid;
  grid-template-columns: 1fr 1fr auto auto;
  gap: 8px;
  align-items: end;
}
.first p {
  margin: 0 0 6px;
  color: var(--buoy);
}
.acts {
  display: flex;
  gap: 8px;
}
kbd {
  font: 11px var(--mono);
  border: 1px solid currentcolor;
  border-radius: 3px;
  padding: 0 4px;
}
@media (max-width: 600px) {
  .when {
    grid-template-columns: 1fr 90px;
  }
  .adding {
    grid-template-columns: 1fr;
  }
}
</style>
