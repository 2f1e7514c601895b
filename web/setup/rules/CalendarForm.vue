<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { ref, watch } from 'vue'
import { saveCalendar } from '#contract/setup'
import type { RuleBookSheet } from '#contract/setup'
import { TextEntry, call } from '#web/kit'
import type { CallProblem } from '#web/kit'

/** Working hours and holidays: what promises in working time are counted in. */
const props = defineProps<{
  sheet: RuleBookSheet
  problem: CallProblem | null
  keep: (change: () => Promise<RuleBookSheet>, done: string) => Promise<boolean>
}>()
const DAYS = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday']
const hours = ref<string[]>([])
const holidays = ref('')
const wrong = ref('')
watch(
  () => props.sheet,
  ({ calendar }) => {
    hours.value = calendar.week.map((day) => day.map((one) => `${one.from}-${one.to}`).join(', '))
    holidays.value = calendar.holidays.join('\n')
  },
  { immediate: true },
)

/** "08:00-12:00, 13:00-17:00" as stretches, or null when it cannot be read. */
function stretches(text: string): { from: string; to: string }[] | null {
  const parts = text
    .split(',')
    .map((one) => one.trim())
    .filter(Boolean)
  const read = parts.map((one) => /^(\d{2}:\d{2})\s*[-–]\s*(\d{2}:\d{2})$/.exec(one))
  return read.every((one) => one) ? read.map((one) => ({ from: one![1]!, to: one![2]! })) : null
}
async function save(): Promise<void> {
  wrong.value = ''
  const week = hours.value.map(stretches)
  const unread = week.findIndex((day) => day === null)
  if (unread >= 0) {
    wrong.value = `Write the hours of ${DAYS[unread]} like 08:00-12:00, 13:00-17:00, or leave them empty.`
    return
  }
  const days = [...new Set(holidays.value.split(/\s+/).filter(Boolean))]
  await props.keep(
    () =>
      call(saveCalendar, { siteId: props.sheet.siteId, version: props.sheet.calendarVersion, week: week as { from: string; to: string }[][], holidays: days }),
    'Saved; promises already made stay.',
  )
}
</script>

<template>
  <form class="calendar" aria-label="Working hours" @submit.prevent="save">
    <TextEntry
      v-for="(day, index) in DAYS"
      :id="`hours-${index}`"
      :key="day"
      :model-value="hours[index] ?? ''"
      :label="day"
      mono
      :max="60"
      placeholder="closed"
      @update:model-value="hours[index] = $event"
    />
    <TextEntry id="holidays" v-model="holidays" label="Holidays, one date a line" long mono class="holidays" placeholder="2026-12-25" />
    <div class="end">
      <NButton attr-type="submit">Save hours and holidays</NButton>
      <p v-if="wrong || problem?.at('week') || problem?.at('holidays')" class="problem" role="alert">
        {{ wrong || problem?.at('week') || problem?.at('holidays') }}
      </p>
      <p class="soft">Read in {{ sheet.calendar.zone }}.</p>
    </div>
  </form>
</template>

<style scoped>
.calendar {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(200px, 1fr));
  gap: 8px 12px;
}
.end {
  align-self: end;
}
</style>
