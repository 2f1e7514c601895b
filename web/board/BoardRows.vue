<script setup lang="ts">
import { useVirtualizer } from '@tanstack/vue-virtual'
import { NPopover } from 'naive-ui/es/popover'
import { computed, nextTick, onUnmounted, ref, watch } from 'vue'
import type { Board, BoardVisit } from '#contract/board'
import { placesOn } from '#core/board'
import type { BoardFrame } from '#core/board'
import { leavingKey } from '#web/dayplans'
import type { Proposals } from '#web/dayplans'
import { daysBetween, spanTime, writtenDay } from '#web/kit'
import BoardBars from './BoardBars.vue'
import { useDragging } from './dragging'
import { acrossOn, numberWithin, rowsOf } from './drawn'
import type { Across, Bar, Row } from './drawn'
import type { Holding } from './holding'
import PersonSays from './PersonSays.vue'
import RowName from './RowName.vue'

/** People against time, vendors below; a visit is moved where it is, by mouse or by key. Only what is in sight is drawn. */
const props = defineProps<{
  board: Board
  siteId: number
  frame: BoardFrame
  team: string | null
  holding: Holding
  opened: number | null
  /** Where people are now, by the key of their row. */
  nowSays?: ReadonlyMap<string, string>
  /** What a computed plan would change, while it is looked at. */
  proposals?: Proposals | null
}>()
const emit = defineEmits<{ visit: [BoardVisit, string]; person: [number] }>()
const scroller = ref<HTMLElement | null>(null)
const { held, conflicts, rowConflicts } = props.holding
const place = computed(() => placesOn(props.frame))
/** How wide the time is drawn, so that bars know what they have room for. */
const trackPx = ref(640)
const NAMES_PX = 168
const measure = new ResizeObserver(([entry]) => (trackPx.value = Math.max(200, Math.round(entry!.contentRect.width) - NAMES_PX)))
watch(scroller, (element) => element && measure.observe(element))
onUnmounted(() => measure.disconnect())
const rows = computed(() => rowsOf(props.board, props.team, place.value, trackPx.value))
const across = (span: { from: string | Date; until: string | Date }) => acrossOn(place.value, span)
const heldWindow = computed(() => (held.value?.job.window ? across(held.value.job.window) : null))
/** By person, where the plan that is looked at puts what. */
const puts = computed(() => {
  const found = new Map<number, { style: Across; number: string; ticked: boolean }[]>()
  for (const { technicianId, number, ticked, ...span } of props.proposals?.puts ?? []) {
    const style = across(span)
    const px = (parseFloat(style.width) / 100) * trackPx.value
    if (px > 0) found.set(technicianId, [...(found.get(technicianId) ?? []), { style, number: numberWithin(px, number), ticked }])
  }
  return found
})
/** By person, whether a visit of theirs goes from where it is by that plan. */
const leaving = computed(() => {
  const leaves = props.proposals?.leaves
  if (!leaves?.size) return null
  const found = new Map<number, (bar: Bar) => boolean>()
  for (const { id } of props.board.people) found.set(id, ({ visit }) => visit.state === 'planned' && leaves.has(leavingKey(visit.orderId, id)))
  return found
})
const virtual = useVirtualizer(
  computed(() => ({
    count: rows.value.length,
    getScrollElement: () => scroller.value,
    estimateSize: (index: number) => rows.value[index]!.height + 1,
    getItemKey: (index: number) => rows.value[index]!.key,
    overscan: 4,
  })),
)
watch(rows, () => virtual.value.measure())
const shown = computed(() =>
  virtual.value
    .getVirtualItems()
    .flatMap(({ index, start }): { row: Row; index: number; start: number }[] => (rows.value[index] ? [{ row: rows.value[index], index, start }] : [])),
)

const shownDays = computed(() => daysBetween(props.board.first, props.board.last))
const hours = computed(() => Array.from({ length: props.frame.hours.to - props.frame.hours.from }, (_, index) => props.frame.hours.from + index))
const today = computed(() => new Intl.DateTimeFormat('en-CA', { timeZone: props.board.zone }).format(new Date(props.board.now)))
/** Written once, not with every move over the rows. */
const head = computed(() => ({
  all: `People from ${writtenDay(props.board.first)} to ${writtenDay(props.board.last)}`,
  who: props.board.days === 1 ? writtenDay(props.board.first) : 'Who',
  days: shownDays.value.map((day) => ({ day, says: writtenDay(day).slice(0, props.board.days === 7 ? 6 : 10) })),
}))
const nowAt = computed(() => {
  const at = place.value(new Date(props.board.now))
  return at > 0 && at < 1 ? { left: `${at * 100}%` } : null
})
/** What a row says of itself: what speaks against what is held there, otherwise what its person does. */
function rowSays(key: string, usual: string): string {
  const found = rowConflicts.value?.(key)
  if (!found) return props.nowSays?.get(key) ?? usual
  const against = found.filter(({ weight }) => weight !== 'hint')
  return against.length ? against.map(({ brief }) => brief).join(', ') : 'fits then'
}
function rowFits(key: string): 'fits' | 'asks' | '' {
  const found = rowConflicts.value?.(key)
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
watch(held, (now) => now && (moved = now.visit?.id ?? null))
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
/** What is said of somebody under the pointer, once it stays there: one for all rows. */
const hovered = ref<{ id: number; x: number; y: number } | null>(null)
const HOVER_MS = 400
let waiting: ReturnType<typeof setTimeout> | undefined
function near(id: number | null, element: HTMLElement | null): void {
  clearTimeout(waiting)
  hovered.value = null
  if (id === null || !element || held.value) return
  const { right, top } = element.getBoundingClientRect()
  waiting = setTimeout(() => (hovered.value = held.value ? null : { id, x: right + 4, y: top }), HOVER_MS)
}
onUnmounted(() => clearTimeout(waiting))
defineExpose({ holdingKey, refocus })
</script>

<template>
  <div ref="scroller" class="scroller">
    <div class="table" role="table" :aria-label="head.all" :aria-rowcount="rows.length + 1">
      <div class="row head" role="row" aria-rowindex="1">
        <span role="columnheader">{{ head.who }}</span>
        <span class="track" role="columnheader" aria-label="When">
          <template v-if="board.days === 1">
            <span v-for="hour in hours" :key="hour" class="mark mono" :style="{ width: `${100 / hours.length}%` }">{{ String(hour).padStart(2, '0') }}</span>
          </template>
          <template v-else>
            <span v-for="{ day, says } in head.days" :key="day" class="mark" :class="{ now: day === today }" :style="{ width: `${100 / board.days}%` }">{{
              says
            }}</span>
          </template>
        </span>
      </div>
      <div role="rowgroup" class="all" :style="{ height: `${virtual.getTotalSize()}px` }">
        <div
          v-for="{ row, index, start } in shown"
          :key="row.key"
          class="row"
          role="row"
          :class="rowFits(row.key)"
          :data-row="row.key"
          :aria-rowindex="index + 2"
          :style="{ transform: `translateY(${start}px)` }"
        >
          <RowName
            :name="row.name"
            :is-person="row.isPerson"
            :says="rowSays(row.key, row.says)"
            @open="row.id !== null && emit('person', row.id)"
            @near="(element) => near(row.id, element)"
          />
          <div class="track" role="cell" :style="{ height: `${row.height}px` }" :class="{ outside: row.isPerson }">
            <span v-for="(shift, at) in row.shifts" :key="`s${at}`" class="shift" :style="shift" />
            <span v-for="(span, at) in row.onCall" :key="`c${at}`" class="oncall" :style="span" title="On call" />
            <span v-for="(leave, at) in row.away" :key="`a${at}`" class="away" :style="leave">away</span>
            <span v-if="nowAt" class="nowline" :style="nowAt" />
            <span v-if="heldWindow" class="window" aria-hidden="true" :style="heldWindow" />
            <BoardBars
              :bars="row.bars"
              :ways="row.ways"
              :lifted="held?.visit && held.was?.technicianId === row.id ? held.visit.id : null"
              :opened="opened"
              :leaves="(row.id !== null && leaving?.get(row.id)) || null"
              @press="(bar) => held || emit('visit', bar.visit, row.key)"
              @key="(event, bar) => keyed(event, bar.visit, row.key)"
            />
            <span
              v-for="(put, at) in (row.id !== null && puts.get(row.id)) || []"
              :key="`p${at}`"
              class="put mono"
              aria-hidden="true"
              :class="{ ticked: put.ticked }"
              :style="put.style"
              >{{ put.number }}</span
            >
            <div
              v-if="held?.row === row.key"
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
      <NPopover v-if="hovered" show trigger="manual" placement="right-start" :x="hovered.x" :y="hovered.y">
        <PersonSays :key="hovered.id" :site-id="siteId" :technician-id="hovered.id" :day="board.first" />
      </NPopover>
      <p v-if="!rows.length" class="soft">Nobody works at this site yet. Technicians are entered under Setup, people.</p>
    </div>
  </div>
</template>

<style scoped src="./rows.css"></style>
