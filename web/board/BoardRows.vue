<script setup lang="ts">
import { useVirtualizer } from '@tanstack/vue-virtual'
import { NPopover } from 'naive-ui/es/popover'
import { computed, nextTick, ref, watch } from 'vue'
import type { Board, BoardSpan, BoardVisit } from '#contract/board'
import { lanesOf, placeOf, travelMinutes } from '#core/board'
import type { BoardFrame } from '#core/board'
import { PRIORITY_NAMES } from '#core/requests'
import { daysBetween, RowButton, spanTime, writtenDay } from '#web/kit'
import { useDragging } from './dragging'
import type { Holding } from './holding'
import PersonSays from './PersonSays.vue'

/** People against time, vendors below; a visit is moved where it is, by mouse or by key. Only what is in sight is drawn. */
const props = defineProps<{ board: Board; siteId: number; frame: BoardFrame; team: string | null; holding: Holding; opened: number | null }>()
const emit = defineEmits<{ visit: [BoardVisit, string]; person: [number] }>()
const LANE = 34
const scroller = ref<HTMLElement | null>(null)
const { held, conflicts, rowConflicts } = props.holding

const place = (at: string | Date) => placeOf(new Date(at), props.frame) * 100
const inSight = ({ from, until }: BoardSpan) => place(until) > 0 && place(from) < 100
const rows = computed(() => {
  const people = props.board.people
    .filter((one) => !props.team || one.team === props.team)
    .map((one) => ({
      ...drawn(one.visits),
      id: one.id,
      key: `t${one.id}`,
      name: one.name,
      says: one.trades.join(', ') || one.team,
      shifts: one.shifts,
      away: one.away,
    }))
  const vendors = props.team ? [] : props.board.vendors
  return [
    ...people,
    ...vendors.map((one) => ({ ...drawn(one.visits), id: null, key: `v${one.id}`, name: one.name, says: 'vendor', shifts: null, away: [] as BoardSpan[] })),
  ]
})

function drawn(all: BoardVisit[]) {
  const visits = all.filter(inSight)
  const lanes = lanesOf(visits.map(({ from, until }) => ({ from: new Date(from), until: new Date(until) })))
  const ways = visits.flatMap((visit, index) => {
    const next = visits.find((one) => one.from >= visit.until)
    const minutes = next ? travelMinutes(visit.path, next.path) : 0
    const until = new Date(new Date(visit.until).getTime() + minutes * 60_000).toISOString()
    return minutes && next
      ? [{ key: visit.id, from: visit.until, until, lane: lanes[index]!, tight: until > next.from, says: `${minutes} min on to ${next.number}` }]
      : []
  })
  return { visits: visits.map((visit, index) => ({ visit, lane: lanes[index]! })), ways, height: Math.max(1, ...lanes.map((lane) => lane + 1)) * LANE + 8 }
}
const virtual = useVirtualizer(
  computed(() => ({
    count: rows.value.length,
    getScrollElement: () => scroller.value,
    estimateSize: (index: number) => Math.max(rows.value[index]!.height, 46) + 1,
    getItemKey: (index: number) => rows.value[index]!.key,
    overscan: 6,
  })),
)
watch(rows, () => virtual.value.measure())

function across({ from, until }: { from: string | Date; until: string | Date }): { left: string; width: string } {
  const left = place(from)
  return { left: `${left}%`, width: `${Math.max(0, place(until) - left)}%` }
}
const barAt = (visit: BoardVisit, lane: number) => ({ ...across(visit), top: `${lane * LANE + 4}px` })
const shownDays = computed(() => daysBetween(props.board.first, props.board.last))
const hours = computed(() => Array.from({ length: props.frame.hours.to - props.frame.hours.from }, (_, index) => props.frame.hours.from + index))
const today = computed(() => new Intl.DateTimeFormat('en-CA', { timeZone: props.board.zone }).format(new Date(props.board.now)))
const isRunning = computed(
  () => props.board.first <= today.value && today.value <= props.board.last && inSight({ from: props.board.now, until: props.board.now }),
)
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
/** Time used against time promised, along the foot of a bar: too many for a component each. */
function gaugeOf({ target }: BoardVisit): { width: string; standing: string } {
  const [start, due, close, at] = [target.startAt, target.completionDueAt, target.closeAt, target.stoppedAt ?? props.board.now].map((one) =>
    new Date(one).getTime(),
  )
  const used = (at! - start!) / Math.max(1, due! - start!)
  return { width: `${Math.min(100, Math.max(3, used * 100))}%`, standing: at! > due! ? 'past' : at! >= close! ? 'close' : 'on_time' }
}
/** "W-" of "W-31407": the first to go where there is little room. */
const seriesOf = (number: string) => /^.*-/.exec(number)?.[0] ?? ''

/** What a row says of itself: what speaks against what is held there, otherwise what its person does. */
function rowSays(key: string, usual: string): string {
  const found = rowConflicts.value?.get(key)
  if (!found) return usual
  const against = found.filter(({ weight }) => weight !== 'hint')
  return against.length ? against.map(({ brief }) => brief).join(', ') : 'fits then'
}
function rowFits(key: string): 'fits' | 'asks' | '' {
  const found = rowConflicts.value?.get(key)
  if (!found) return ''
  return found.some(({ weight }) => weight !== 'hint') ? 'asks' : 'fits'
}

/** Keys of what is held: arrows move it, with Shift by an hour; - and + make it shorter and longer. */
function keyed(event: KeyboardEvent, visit: BoardVisit, row: string): void {
  if (event.ctrlKey || event.metaKey || event.altKey) return
  if (!held.value) {
    if (event.key === ' ') props.holding.takeVisit(visit, row)
    else if (event.key === 'Enter') emit('visit', visit, row)
    else return
  } else if (!holdingKey(event)) return
  event.preventDefault()
  event.stopPropagation()
}
function holdingKey(event: KeyboardEvent): boolean {
  const { holding } = props
  const keys = rows.value.map(({ key }) => key)
  const step = event.shiftKey ? 60 : 15
  const acts: Record<string, () => unknown> = {
    ArrowLeft: () => holding.step(-step),
    ArrowRight: () => holding.step(step),
    ArrowUp: () => holding.turn(-1, keys),
    ArrowDown: () => holding.turn(1, keys),
    '-': () => holding.stretch(-15),
    '+': () => holding.stretch(15),
    Escape: holding.leave,
    Enter: () => drop(),
    ' ': () => drop(),
  }
  acts[event.key]?.()
  return event.key in acts
}
/** A bar that moved to another row is drawn anew: the keyboard goes with it. */
let moved: number | null = null
watch(held, (now) => now?.visit && (moved = now.visit.id))
const refocus = () => nextTick(() => scroller.value?.querySelector<HTMLElement>(`[data-visit="${moved}"]`)?.focus())
const drop = async () => void ((await props.holding.drop()) && (await refocus()))
useDragging(
  scroller,
  props.holding,
  () => props.board,
  () => props.frame,
)
watch(
  () => held.value?.row,
  (key) => key && virtual.value.scrollToIndex(rows.value.findIndex((row) => row.key === key)),
)
defineExpose({ holdingKey })
</script>

<template>
  <div ref="scroller" class="scroller">
    <div class="table" role="table" :aria-label="`People from ${writtenDay(board.first)} to ${writtenDay(board.last)}`" :aria-rowcount="rows.length + 1">
      <div class="row head" role="row" aria-rowindex="1">
        <span role="columnheader">{{ board.days === 1 ? writtenDay(board.first) : 'Who' }}</span>
        <span class="track" role="columnheader" aria-label="When">
          <template v-if="board.days === 1">
            <span v-for="hour in hours" :key="hour" class="mark mono" :style="{ width: `${100 / hours.length}%` }">{{ String(hour).padStart(2, '0') }}</span>
          </template>
          <template v-else>
            <span v-for="day in shownDays" :key="day" class="mark" :class="{ now: day === today }" :style="{ width: `${100 / board.days}%` }">{{
              writtenDay(day).slice(0, board.days === 7 ? 6 : 10)
            }}</span>
          </template>
        </span>
      </div>
      <div role="rowgroup" class="all" :style="{ height: `${virtual.getTotalSize()}px` }">
        <div
          v-for="{ index, start, key } in virtual.getVirtualItems()"
          :key="String(key)"
          class="row"
          role="row"
          :class="rowFits(rows[index]!.key)"
          :data-row="rows[index]!.key"
          :aria-rowindex="index + 2"
          :style="{ transform: `translateY(${start}px)`, minHeight: '46px' }"
        >
          <div class="who" role="rowheader">
            <NPopover v-if="rows[index]!.id !== null" trigger="hover" placement="right-start" :delay="400" :disabled="held !== null">
              <template #trigger>
                <RowButton class="name" @click="emit('person', rows[index]!.id!)">{{ rows[index]!.name }}</RowButton>
              </template>
              <PersonSays :site-id="siteId" :technician-id="rows[index]!.id!" :day="board.first" />
            </NPopover>
            <strong v-else>{{ rows[index]!.name }}</strong>
            <span class="soft" :title="rowSays(rows[index]!.key, rows[index]!.says)">{{ rowSays(rows[index]!.key, rows[index]!.says) }}</span>
          </div>
          <div class="track" role="cell" :style="{ height: `${Math.max(46, rows[index]!.height)}px` }" :class="{ outside: rows[index]!.shifts }">
            <span v-for="(shift, at) in rows[index]!.shifts ?? []" :key="`s${at}`" class="shift" :style="across(shift)" />
            <span v-for="(leave, at) in rows[index]!.away" :key="`a${at}`" class="away" :style="across(leave)">away</span>
            <span v-if="isRunning" class="nowline" :style="{ left: `${place(board.now)}%` }" />
            <span
              v-for="way in rows[index]!.ways"
              :key="`w${way.key}`"
              class="way"
              :class="{ tight: way.tight }"
              :title="way.says"
              :style="{ ...across(way), top: `${way.lane * LANE + 16}px` }"
            />
            <span
              v-if="held?.visit?.window ?? held?.order?.window"
              class="window"
              aria-hidden="true"
              :style="across((held?.visit?.window ?? held?.order?.window)!)"
            />
            <div
              v-for="{ visit, lane } in rows[index]!.visits"
              :key="visit.id"
              class="visit"
              role="button"
              tabindex="0"
              aria-keyshortcuts="Space"
              :class="[visit.state, visit.priority, { astray: visit.outside, lifted: held?.visit?.id === visit.id, opened: opened === visit.id }]"
              :style="barAt(visit, lane)"
              :title="says(visit)"
              :data-visit="visit.id"
              @click="held || emit('visit', visit, rows[index]!.key)"
              @keydown="keyed($event, visit, rows[index]!.key)"
            >
              <span class="spoken">{{ says(visit) }}</span><span class="mono" aria-hidden="true"
                ><span class="series">{{ seriesOf(visit.number) }}</span
                >{{ visit.number.slice(seriesOf(visit.number).length) }}</span
              >
              <span v-if="visit.placeCode" class="mono soft" aria-hidden="true">{{ visit.placeCode }}</span>
              <span v-if="visit.state !== 'ended'" class="gauge" aria-hidden="true"
                ><span :class="gaugeOf(visit).standing" :style="{ width: gaugeOf(visit).width }"
              /></span>
            </div>
            <div
              v-if="held?.row === rows[index]!.key"
              class="ghost"
              aria-hidden="true"
              :class="{ asks: conflicts.some(({ weight }) => weight !== 'hint') }"
              :style="across(held.at)"
            >
              <span class="mono">{{ held.number }}</span> {{ spanTime(held.at.from.toISOString(), held.at.until.toISOString()) }}
            </div>
          </div>
        </div>
      </div>
      <p v-if="!rows.length" class="soft">Nobody works at this site yet. Technicians are entered under Setup, people.</p>
    </div>
  </div>
</template>

<style scoped src="./rows.css"></style>
