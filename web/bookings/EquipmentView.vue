<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, ref } from 'vue'
import { RouterLink } from 'vue-router'
import { readEquipmentCalendar } from '#contract/bookings'
import type { Booking } from '#contract/bookings'
import {
  dayAfter,
  daysBetween,
  ListEntry,
  LoadedPart,
  RecordLink,
  rowsNamed,
  shortTime,
  toLocalField,
  useRead,
  useSession,
  useVocabulary,
  writtenDay,
} from '#web/kit'
import { StockHead } from '#web/stock'
import { barOf } from './bars'

/** What is lent to jobs over the days to come: who has it, what it is booked for, and what is late or wants inspecting. */
const session = useSession()
const words = useVocabulary()
void words.ensure()
const siteId = ref(session.self!.site.id)
const start = ref<string | null>(null)
const DAYS = 14
const read = useRead(readEquipmentCalendar, () => ({ siteId: siteId.value, days: DAYS, ...(start.value ? { from: start.value } : {}) }), {
  holds: true,
  touchedBy: ({ kind }) => kind.startsWith('booking.') || kind.startsWith('register.'),
  every: 60_000,
})
const it = computed(() => read.value.value!)
const days = computed(() => daysBetween(it.value.from, it.value.to))
const step = (by: number) => (start.value = dayAfter(it.value.from, by))
const style = (booking: Booking) => {
  const bar = barOf(booking, it.value.from, DAYS, (at) => toLocalField(new Date(at)))
  return { left: `${bar.left}%`, width: `${bar.width}%` }
}
const says = (booking: Booking) =>
  `${booking.order.number}, ${shortTime(booking.from)} to ${shortTime(booking.until)}${booking.has ? `, with ${booking.has}` : ''}${booking.late ? ', should be back' : ''}`
const isWeekend = (day: string) => [0, 6].includes(new Date(`${day}T12:00:00Z`).getUTCDay())
</script>

<template>
  <div class="page">
    <StockHead />
    <section aria-label="Equipment">
      <div class="choices">
        <ListEntry v-if="(words.lists?.sites.length ?? 0) > 1" id="equipment-site" v-model="siteId" label="Site" :options="rowsNamed(words.lists?.sites)" />
        <div v-if="read.value.value" class="days">
          <NButton aria-label="Earlier" @click="step(-7)">←</NButton>
          <NButton :disabled="start === null" @click="start = null">From today</NButton>
          <NButton aria-label="Later" @click="step(7)">→</NButton>
        </div>
      </div>
      <LoadedPart :part="read">
        <p v-if="!it.rows.length" class="soft">
          No equipment is entered for this site. It is entered under <RouterLink to="/registers/equipment">Registers, Equipment</RouterLink>.
        </p>
        <div v-else class="scroll">
          <div class="calendar" role="table" aria-label="Equipment by day">
            <div class="row head" role="row">
              <span role="columnheader">Equipment</span>
              <span class="track" role="columnheader" :aria-label="`${writtenDay(it.from)} to ${writtenDay(it.to)}`">
                <span v-for="day in days" :key="day" class="day" :class="{ weekend: isWeekend(day) }" aria-hidden="true">{{
                  writtenDay(day).slice(0, 6)
                }}</span>
              </span>
            </div>
            <div v-for="row in it.rows" :key="row.id" class="row" role="row">
              <div role="rowheader" class="piece">
                <RecordLink :record="{ register: 'equipment', id: row.id }">{{ row.name }}</RecordLink> <span class="mono soft">{{ row.tag }}</span>
                <p v-if="row.out" :class="row.out.late ? 'problem' : 'soft'">
                  with {{ row.out.has }}, {{ row.out.order }}{{ row.out.late ? ', should be back' : '' }}
                </p>
                <p v-else class="soft">{{ row.place ?? 'in its place' }}</p>
                <p v-if="row.inspectedUntil" :class="row.inspectionEnded ? 'problem' : 'soft'">
                  {{ row.inspectionEnded ? 'inspection ended' : 'inspected until' }} {{ writtenDay(row.inspectedUntil) }}
                </p>
              </div>
              <div class="track" role="cell">
                <span v-for="day in days" :key="day" class="day" :class="{ weekend: isWeekend(day) }" />
                <RouterLink
                  v-for="booking in row.bookings"
                  :key="booking.id"
                  class="bar mono"
                  :class="[booking.state, { late: booking.late }]"
                  :style="style(booking)"
                  :to="`/desk/planning/order/${booking.order.id}`"
                  :aria-label="says(booking)"
                  :title="says(booking)"
                  >{{ booking.order.number }}</RouterLink
                >
              </div>
            </div>
          </div>
        </div>
        <p class="soft">Filled: handed out. Outlined: booked. Hatched: should be back. Equipment is booked on the Sheet of the order that needs it.</p>
      </LoadedPart>
    </section>
  </div>
</template>

<style scoped src="../kit/page.css"></style>
<style scoped>
.choices,
.days {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: end;
}
.scroll {
  overflow-x: auto;
}
.calendar {
  min-width: 980px;
}
.row {
  display: grid;
  grid-template-columns: 240px minmax(0, 1fr);
  border-bottom: 1px solid var(--line);
}
.head {
  font-size: 12px;
  color: var(--ink-soft);
  align-items: end;
}
.piece {
  padding: 6px 8px 6px 0;
}
.piece p {
  margin: 0;
  font-size: 12px;
}
.track {
  position: relative;
  display: grid;
  grid-template-columns: repeat(14, minmax(0, 1fr));
  min-height: 100%;
}
.day {
  border-left: 1px solid var(--line);
  padding: 2px 4px;
  white-space: nowrap;
  overflow: hidden;
}
.weekend {
  background: var(--shoal-faint);
}
.bar {
  position: absolute;
  top: 10px;
  height: 26px;
  padding: 3px 6px;
  font-size: 12px;
  overflow: hidden;
  white-space: nowrap;
  text-decoration: none;
  border: 1px solid var(--tide);
  border-radius: 4px;
  background: var(--sheet);
  color: var(--ink);
}
.bar.out {
  background: var(--shoal);
}
.bar.back {
  border-style: dotted;
  color: var(--ink-soft);
}
.bar.late {
  border-color: var(--buoy);
  background: repeating-linear-gradient(135deg, var(--sheet) 0 5px, var(--shoal) 5px 10px);
}
@media (forced-colors: active) {
  .bar {
    border-width: 2px;
  }
}
</style>
