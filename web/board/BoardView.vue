<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, ref } from 'vue'
import { RouterLink } from 'vue-router'
import { readBoard } from '#contract/board'
import type { BoardSpan, BoardVisit } from '#contract/board'
import { BOARD_DAYS, BOARD_DAYS_NAMES, lanesOf, placeOf } from '#core/board'
import type { BoardDays } from '#core/board'
import { isChange } from '#core/events'
import { PRIORITY_NAMES } from '#core/requests'
import {
  ChoiceEntry,
  dayAfter,
  daysBetween,
  ListEntry,
  LoadedPart,
  rowsNamed,
  shortTime,
  spanTime,
  useRead,
  useSession,
  useVocabulary,
  writtenDay,
} from '#web/kit'
import WaitingList from './WaitingList.vue'

/** People against time, and beside it the work that nobody is planned for. */
const session = useSession()
const words = useVocabulary()
void words.ensure()
const siteId = ref(session.self!.site.id)
const first = ref<string | null>(null)
const days = ref<BoardDays>(1)
const team = ref<string | null>(null)
const read = useRead(readBoard, () => ({ siteId: siteId.value, days: days.value, ...(first.value ? { first: first.value } : {}) }), {
  holds: true,
  touchedBy: ({ kind }) => isChange(kind),
  every: 60_000,
})
const it = computed(() => read.value.value!)
const SPANS = BOARD_DAYS.map((value) => ({ value, label: BOARD_DAYS_NAMES[value] }))
const teams = computed(() => [...new Set(it.value.people.map((one) => one.team))].map((name) => ({ value: name, label: name })))
const shownDays = computed(() => daysBetween(it.value.first, it.value.last))
const hours = computed(() => Array.from({ length: it.value.hours.to - it.value.hours.from }, (_, index) => it.value.hours.from + index))
const LANE = 34
const rows = computed(() => [
  ...it.value.people
    .filter((one) => !team.value || one.team === team.value)
    .map((one) => ({ ...drawn(one.visits), key: `t${one.id}`, name: one.name, says: one.trades.join(', ') || one.team, shifts: one.shifts, away: one.away })),
  ...(team.value ? [] : it.value.vendors.map((one) => ({ ...drawn(one.visits), key: `v${one.id}`, name: one.name, says: 'vendor', shifts: null, away: [] }))),
])

function drawn(visits: BoardVisit[]) {
  const lanes = lanesOf(visits.map(({ from, until }) => ({ from: new Date(from), until: new Date(until) })))
  return { visits: visits.map((visit, index) => ({ visit, lane: lanes[index]! })), height: Math.max(1, ...lanes.map((lane) => lane + 1)) * LANE + 8 }
}
const place = (at: string) => placeOf(new Date(at), it.value) * 100
function across({ from, until }: BoardSpan): { left: string; width: string } {
  const left = place(from)
  return { left: `${left}%`, width: `${Math.max(0, place(until) - left)}%` }
}
const barAt = (visit: BoardVisit, lane: number) => ({ ...across(visit), top: `${lane * LANE + 4}px` })
const isRunning = computed(() => it.value.first <= today.value && today.value <= it.value.last)
const today = computed(() => new Intl.DateTimeFormat('en-CA', { timeZone: it.value.zone }).format(new Date(it.value.now)))
const says = (visit: BoardVisit) =>
  [
    // What is read of it comes first, so that it is called by what is seen.
    [visit.number, visit.placeCode].filter(Boolean).join(' '),
    visit.summary,
    spanTime(visit.from, visit.until),
    visit.priority && PRIORITY_NAMES[visit.priority],
    { planned: 'planned', on_site: 'on the job', ended: 'over' }[visit.state],
    visit.window ? `agreed for ${spanTime(visit.window.from, visit.window.until)}${visit.outside ? ', and planned outside of it' : ''}` : null,
  ]
    .filter(Boolean)
    .join(', ')
/** "W-" of "W-31407": the first to go where there is little room. */
const seriesOf = (number: string) => /^.*-/.exec(number)?.[0] ?? ''
const step = (by: number) => (first.value = dayAfter(it.value.first, by * it.value.days))
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
        <ChoiceEntry id="board-days" v-model="days" label="How much" label-hidden :options="SPANS" />
        <span class="steps">
          <NButton aria-label="Earlier" :disabled="!read.value.value" @click="step(-1)">←</NButton>
          <NButton :disabled="first === null" @click="first = null">Today</NButton>
          <NButton aria-label="Later" :disabled="!read.value.value" @click="step(1)">→</NButton>
        </span>
      </div>
    </header>
    <LoadedPart :part="read">
      <div class="both">
        <section class="people" aria-label="People against time">
          <div class="table" role="table" :aria-label="`People from ${writtenDay(it.first)} to ${writtenDay(it.last)}`">
            <div class="row head" role="row">
              <span role="columnheader">{{ it.days === 1 ? writtenDay(it.first) : 'Who' }}</span>
              <span class="track" role="columnheader" aria-label="When">
                <template v-if="it.days === 1">
                  <span v-for="hour in hours" :key="hour" class="mark mono" :style="{ width: `${100 / hours.length}%` }">{{
                    String(hour).padStart(2, '0')
                  }}</span>
                </template>
                <template v-else>
                  <span v-for="day in shownDays" :key="day" class="mark" :class="{ now: day === today }" :style="{ width: `${100 / it.days}%` }">{{
                    writtenDay(day).slice(0, it.days === 7 ? 6 : 10)
                  }}</span>
                </template>
              </span>
            </div>
            <div v-for="row in rows" :key="row.key" class="row" role="row">
              <div class="who" role="rowheader">
                <strong>{{ row.name }}</strong> <span class="soft">{{ row.says }}</span>
              </div>
              <div class="track" role="cell" :style="{ height: `${row.height}px` }" :class="{ outside: row.shifts }">
                <span v-for="(shift, index) in row.shifts ?? []" :key="`s${index}`" class="shift" :style="across(shift)" />
                <span v-for="(leave, index) in row.away" :key="`a${index}`" class="away" :style="across(leave)">away</span>
                <span v-if="isRunning" class="nowline" :style="{ left: `${place(it.now)}%` }" />
                <RouterLink
                  v-for="{ visit, lane } in row.visits"
                  :key="visit.id"
                  class="visit"
                  :class="[visit.state, visit.priority, { astray: visit.outside }]"
                  :style="barAt(visit, lane)"
                  :to="`/desk/field/order/${visit.orderId}`"
                  :title="says(visit)"
                  ><span class="spoken">{{ says(visit) }}</span
                  ><span class="mono" aria-hidden="true"
                    ><span class="series">{{ seriesOf(visit.number) }}</span
                    >{{ visit.number.slice(seriesOf(visit.number).length) }}</span
                  >
                  <span v-if="visit.placeCode" class="mono soft" aria-hidden="true">{{ visit.placeCode }}</span></RouterLink
                >
              </div>
            </div>
            <p v-if="!rows.length" class="soft">Nobody works at this site yet. Technicians are entered under Setup, people.</p>
          </div>
          <p class="soft legend">
            Light: at work. Outlined: planned, the more urgent the heavier its edge. Filled: on the job. Hatched: away. A visit leads to its order. It is
            {{ shortTime(it.now) }}.
          </p>
        </section>
        <WaitingList :rows="it.waiting" />
      </div>
    </LoadedPart>
  </div>
</template>

<style scoped src="../kit/page.css"></style>
<style scoped>
.board {
  align-content: start;
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
  grid-template-columns: minmax(0, 1fr) 320px;
  gap: 20px;
  align-items: start;
}
.people {
  overflow-x: auto;
}
.table {
  min-width: 640px;
}
.row {
  display: grid;
  grid-template-columns: 168px minmax(0, 1fr);
  border-bottom: 1px solid var(--line);
}
.head {
  font-size: 12px;
  color: var(--ink-soft);
  align-items: end;
  position: sticky;
  top: 0;
  z-index: 2;
  background: var(--sheet);
}
.head .track {
  display: flex;
}
.mark {
  border-left: 1px solid var(--line);
  padding-left: 4px;
  overflow: hidden;
  white-space: nowrap;
}
.mark.now {
  font-weight: 700;
  color: var(--ink);
}
.who {
  padding: 6px 8px 6px 0;
  min-width: 0;
  line-height: 1.25;
}
.who .soft {
  display: block;
  font-size: 12px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.track {
  position: relative;
  min-width: 0;
}
.track.outside {
  background: var(--shoal-faint);
}
.shift {
  position: absolute;
  top: 0;
  bottom: 0;
  background: var(--sheet);
}
.away {
  position: absolute;
  top: 0;
  bottom: 0;
  padding: 4px 6px;
  font-size: 12px;
  overflow: hidden;
  background: repeating-linear-gradient(135deg, var(--line) 0 6px, var(--sheet) 6px 12px);
}
.nowline {
  position: absolute;
  top: 0;
  bottom: 0;
  width: 2px;
  background: var(--buoy);
  z-index: 1;
}
.visit {
  position: absolute;
  z-index: 1;
  height: 28px;
  min-width: 6px;
  padding: 3px 4px;
  display: flex;
  gap: 6px;
  align-items: center;
  overflow: hidden;
  white-space: nowrap;
  font-size: 12px;
  color: var(--ink);
  text-decoration: none;
  border: 1px solid var(--ink-soft);
  border-radius: 4px;
  background: var(--sheet);
  container-type: inline-size;
}
/* What does not fit is read by hovering, or by its name. */
@container (max-width: 62px) {
  .visit .series,
  .visit .soft {
    display: none;
  }
}
@container (max-width: 34px) {
  .visit span:not(.spoken) {
    display: none;
  }
}
.spoken {
  position: absolute;
  width: 1px;
  height: 1px;
  overflow: hidden;
  clip-path: inset(50%);
  white-space: nowrap;
}
.visit.deferred {
  border-left-width: 1px;
}
.visit.routine {
  border-left-width: 3px;
}
.visit.urgent {
  border-left-width: 6px;
}
.visit.emergency {
  border-left-width: 10px;
}
.visit.on_site {
  background: var(--shoal);
  border-color: var(--tide);
}
.visit.ended {
  border-style: dotted;
  color: var(--ink-soft);
}
.visit.astray {
  border: 2px dashed var(--buoy);
}
.visit:focus-visible,
.visit:hover {
  z-index: 3;
  outline: 2px solid var(--tide);
}
.legend {
  font-size: 12px;
}
@media (max-width: 900px) {
  .both {
    grid-template-columns: minmax(0, 1fr);
  }
}
@media (forced-colors: active) {
  .nowline {
    background: CanvasText;
  }
  .visit.on_site {
    border-width: 3px;
  }
}
</style>
