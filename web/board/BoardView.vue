<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, nextTick, ref, shallowRef } from 'vue'
import { readBoard } from '#contract/board'
import type { BoardVisit, WaitingOrder } from '#contract/board'
import { readCrewNow } from '#contract/field'
import { BOARD_DAYS, BOARD_DAYS_NAMES, halfOf } from '#core/board'
import type { BoardDays } from '#core/board'
import { listLeaveAsks } from '#contract/shifts'
import type { LeaveAsk } from '#contract/shifts'
import { isChange } from '#core/events'
import { DayPlanPanel } from '#web/dayplans'
import type { Proposals } from '#web/dayplans'
import {
  ChoiceEntry,
  dayAfter,
  ListEntry,
  LoadedPart,
  offerActs,
  rowsNamed,
  shortTime,
  toLocalField,
  useKeys,
  useRead,
  useSession,
  useVocabulary,
} from '#web/kit'
import { LeavePanel, OnCallLine } from '#web/shifts'
import { useRoute } from 'vue-router'
import BoardRows from './BoardRows.vue'
import { crewSays } from './crewSays'
import DespiteDialog from './DespiteDialog.vue'
import HeldSays from './HeldSays.vue'
import { stretchOf, useHolding } from './holding'
import PersonPanel from './PersonPanel.vue'
import { surprisesOn } from './surprises'
import PlanPanel from './PlanPanel.vue'
import WaitingList from './WaitingList.vue'

/** People against time, and beside it the work that nobody is planned for; work is moved by mouse, by key and by form. */
const session = useSession()
const words = useVocabulary()
void words.ensure()
const siteId = ref(session.self!.site.id)
const first = ref<string | null>(null)
const days = ref<BoardDays>(1)
/** Half of the one day that is shown. */
const half = ref<'early' | 'late' | null>(null)
const team = ref<string | null>(null)
const read = useRead(readBoard, () => ({ siteId: siteId.value, days: days.value, ...(first.value ? { first: first.value } : {}) }), {
  holds: true,
  touchedBy: ({ kind }) => isChange(kind),
  every: 60_000,
})
const it = computed(() => read.value.value!)
/** Where everybody is, on a Board of today. */
const crew = useRead(readCrewNow, () => ({ siteId: siteId.value }), { holds: true, touchedBy: ({ kind }) => isChange(kind), every: 60_000 })
const nowSays = computed(() => {
  const isToday = it.value.first <= dayNow.value && dayNow.value <= it.value.last
  return isToday ? crewSays(crew.value.value?.rows ?? [], shortTime) : undefined
})
const holding = useHolding(
  () => siteId.value,
  () => it.value,
  () => read.load(),
)
const { held, asked, problem, busy, back } = holding
const SPANS = [{ value: 0.5, label: 'Half a day' }, ...BOARD_DAYS.map((value) => ({ value: value as number, label: BOARD_DAYS_NAMES[value] }))]
const dayNow = computed(() => toLocalField(new Date(it.value.now)).slice(0, 10))
const span = computed<number>({
  get: () => (half.value ? 0.5 : days.value),
  set: (value) => {
    const noon =
      it.value.first === dayNow.value &&
      toLocalField(new Date(it.value.now)) >= `${dayNow.value}T${String(halfOf(it.value.hours, 'late').from).padStart(2, '0')}`
    half.value = value === 0.5 ? (half.value ?? (noon ? 'late' : 'early')) : null
    days.value = value === 0.5 ? 1 : (value as BoardDays)
  },
})
const frame = computed(() => ({
  first: it.value.first,
  days: it.value.days,
  hours: half.value && it.value.days === 1 ? halfOf(it.value.hours, half.value) : it.value.hours,
  zone: it.value.zone,
}))
const teams = computed(() => [...new Set(it.value.people.map((one) => one.team))].map((name) => ({ value: name, label: name })))
function step(by: number): void {
  if (half.value) {
    const crosses = half.value === (by > 0 ? 'late' : 'early')
    half.value = half.value === 'early' ? 'late' : 'early'
    if (!crosses) return
  }
  first.value = dayAfter(it.value.first, by * it.value.days)
}

/** What stands beside the Board: a visit, an order or a person that was opened; otherwise what waits. */
const opened = ref<{ visitId?: number; orderId?: number; personId?: number; row: string } | null>(null)
function open(what: NonNullable<typeof opened.value>): void {
  planning.value = deciding.value = false
  opened.value = what
}
const openVisit = (visit: BoardVisit, row: string) => open({ visitId: visit.id, row })
const openOrder = (order: WaitingOrder) => open({ orderId: order.id, row: '' })
const openPerson = (personId: number) => open({ personId, row: `t${personId}` })
const rowOf = (id: number) => {
  const person = it.value.people.find(({ visits }) => visits.some((one) => one.id === id))
  const vendor = it.value.vendors.find(({ visits }) => visits.some((one) => one.id === id))
  return person ? `t${person.id}` : vendor ? `v${vendor.id}` : ''
}
const openedVisit = computed(() => {
  const id = opened.value?.visitId
  return [...it.value.people, ...it.value.vendors].flatMap(({ visits }) => visits).find((one) => one.id === id) ?? null
})
const openedOrder = computed(() => it.value.waiting.find(({ id }) => id === opened.value?.orderId) ?? null)
/** Leave that is asked for, for who keeps the registers. */
const asks = useRead(listLeaveAsks, () => (session.can('registers.edit') ? { siteId: siteId.value } : null), {
  holds: true,
  touchedBy: ({ kind }) => kind.startsWith('leave.'),
})
const leaveRows = computed(() => asks.value.value?.rows ?? [])
const deciding = ref(useRoute().query.leave !== undefined)
function openLeave(): void {
  opened.value = null
  planning.value = false
  deciding.value = true
}
function decided(rows: LeaveAsk[]): void {
  asks.value.value = { rows }
  void read.load()
}
/** A computed plan beside the Board, for who may send people out. */
const planning = ref(false)
const proposals = shallowRef<Proposals | null>(null)
const repairing = ref(false)
const askPlan = ref<InstanceType<typeof NButton> | null>(null)
function openPlan(repairs: boolean): void {
  opened.value = null
  deciding.value = false
  repairing.value = repairs
  planning.value = true
}
async function leavePlan(): Promise<void> {
  planning.value = false
  await nextTick()
  ;(askPlan.value?.$el as HTMLElement | undefined)?.focus()
}
offerActs(() => [
  ...(session.can('orders.dispatch') && read.value.value ? [{ label: 'Compute a plan', key: 'p', run: () => openPlan(false) }] : []),
  ...(read.value.value
    ? [
        { label: 'What comes before on the Board', run: () => step(-1) },
        { label: 'What comes after on the Board', run: () => step(1) },
        { label: 'Find what nobody is planned for', key: 'f', run: () => document.getElementById('waiting-words')?.focus() },
      ]
    : []),
])
/** What has come in between since it was planned, what is worst first. */
const surprises = computed(() => surprisesOn(it.value, (visit, id) => holding.judge(visit, id, stretchOf(visit))))
const rows = ref<InstanceType<typeof BoardRows> | null>(null)
async function leavePanel(): Promise<void> {
  const was = opened.value
  opened.value = null
  await nextTick()
  document
    .querySelector<HTMLElement>(
      was?.visitId ? `[data-visit="${was.visitId}"]` : was?.orderId ? `[data-order="${was.orderId}"] button` : `[data-row="${was?.row}"] .who button`,
    )
    ?.focus()
}
/** Whatever comes of being asked for a reason, the keyboard is with the visit afterwards. */
async function sendDespite(reason: string): Promise<void> {
  if (await holding.sendDespite(reason)) await rows.value?.refocus()
}
function leaveAsked(): void {
  holding.leaveAsked()
  void rows.value?.refocus()
}
const keyed = (event: KeyboardEvent) => rows.value?.holdingKey(event) ?? false
useKeys((key, event) => {
  if (held.value && keyed(event)) return true
  if (event.ctrlKey || event.metaKey) return false
  if (key === 'Escape' && planning.value) return (void leavePlan(), true)
  if (key === 'Escape' && opened.value) return (void leavePanel(), true)
})
</script>

<template>
  <div class="page board">
    <header>
      <h1>Board</h1>
      <div class="choices">
        <ListEntry
          v-if="(words.lists?.sites.length ?? 0) > 1"
          id="board-site"
          v-model="siteId"
          label="Site"
          label-hidden
          :options="rowsNamed(words.lists?.sites)"
        />
        <ListEntry
          v-if="read.value.value && teams.length > 1"
          id="board-team"
          v-model="team"
          label="Team"
          label-hidden
          placeholder="Every team"
          :options="teams"
          clearable
        />
        <ChoiceEntry id="board-days" v-model="span" label="How much" label-hidden :options="SPANS" />
        <span class="steps">
          <NButton aria-label="Earlier" :disabled="!read.value.value" @click="step(-1)">←</NButton>
          <NButton :disabled="first === null" @click="first = null">Today</NButton>
          <NButton aria-label="Later" :disabled="!read.value.value" @click="step(1)">→</NButton>
        </span>
        <NButton v-if="session.can('orders.dispatch')" ref="askPlan" :disabled="!read.value.value" @click="openPlan(false)">Compute a plan</NButton>
        <NButton :disabled="!back.length || busy" :title="back.at(-1)?.sentence" @click="holding.takeBack()">Take back</NButton>
      </div>
    </header>
    <OnCallLine :site-id="siteId" :more="leaveRows.length > 0">
      <NButton v-if="leaveRows.length" size="small" @click="openLeave">{{
        leaveRows.length === 1 ? 'One asks for leave' : `${leaveRows.length} ask for leave`
      }}</NButton>
    </OnCallLine>
    <LoadedPart :part="read">
      <p v-if="surprises.length && !planning" class="troubled" role="status">
        <span>{{ surprises[0]!.sentence }}{{ surprises.length > 1 ? ` And ${surprises.length - 1} more like it.` : '' }}</span>
        <NButton v-if="session.can('orders.dispatch')" size="small" @click="openPlan(true)">Repair the plan</NButton>
      </p>
      <div class="both" :class="{ planning }">
        <section class="people" aria-label="People against time">
          <BoardRows
            ref="rows"
            :board="it"
            :site-id="siteId"
            :frame="frame"
            :team="team"
            :holding="holding"
            :opened="opened?.visitId ?? null"
            :now-says="nowSays"
            :proposals="proposals"
            @visit="openVisit"
            @person="openPerson"
          />
          <HeldSays :holding="holding" :now="it.now" :proposes="proposals !== null" />
        </section>
        <DayPlanPanel
          v-if="planning"
          :site-id="siteId"
          :first="it.first"
          :days="it.days"
          :people="it.people"
          :team="team"
          :repairs="repairing"
          @leave="leavePlan"
          @proposes="proposals = $event"
          @taken="(what, sentence) => void holding.did(what, sentence)"
        />
        <LeavePanel v-else-if="deciding" :rows="leaveRows" @leave="deciding = false" @now="decided" />
        <PlanPanel
          v-else-if="openedVisit || openedOrder"
          :key="openedVisit?.id ?? `o${openedOrder!.id}`"
          :board="it"
          :site-id="siteId"
          :visit="openedVisit"
          :order="openedOrder"
          :row="openedVisit ? rowOf(openedVisit.id) : ''"
          :holding="holding"
          @leave="leavePanel"
        />
        <PersonPanel
          v-else-if="opened?.personId"
          :key="opened.personId"
          :board="it"
          :site-id="siteId"
          :technician-id="opened.personId"
          :holding="holding"
          @leave="leavePanel"
          @changed="read.load()"
        />
        <WaitingList v-else :rows="it.waiting" :holding="holding" :keyed="keyed" @order="openOrder" />
      </div>
      <DespiteDialog v-if="asked" :conflicts="asked.conflicts" :problem="problem" :busy="busy" @leave="leaveAsked" @done="sendDespite" />
    </LoadedPart>
  </div>
</template>

<style scoped src="../kit/page.css"></style>
<style scoped>
/* The rows and what stands beside them take what is left of the window, and are scrolled each for itself. */
.board {
  display: flex;
  flex-direction: column;
  gap: 16px;
  padding-bottom: 16px;
}
.choices,
.steps {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
}
.both {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 344px;
  grid-template-rows: minmax(0, 1fr);
  gap: 20px;
  flex: 1 1 0;
  min-height: 420px;
}
.both > :last-child {
  overflow: auto;
  /* Room for the ring of what has the keyboard. */
  padding: 4px;
  margin: -4px;
}
.both.planning {
  grid-template-columns: minmax(0, 1fr) 440px;
}
.troubled {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  align-items: center;
  margin: 0;
  padding: 6px 0 6px 12px;
  border-left: 3px solid var(--buoy);
}
.people {
  display: flex;
  flex-direction: column;
  gap: 0;
  min-width: 0;
}
@media (max-width: 900px) {
  .board {
    display: grid;
  }
  .both {
    display: block;
  }
  .people {
    display: block;
    margin-bottom: 20px;
  }
  .people,
  .both > :last-child {
    overflow: visible;
  }
}
</style>
