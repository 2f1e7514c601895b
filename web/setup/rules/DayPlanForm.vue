<script setup lang="ts">
import { computed } from 'vue'
import { exampleOf, MOST_WEIGHT, TERM_NAMES, TERMS } from '#core/dayplans'
import type { PlanWeights } from '#core/dayplans'
import { PRIORITIES, PRIORITY_NAMES } from '#core/requests'
import { NumberEntry } from '#web/kit'

/** What a computed plan pays for, in minutes on the way; kept as soon as it is changed, and tried on an invented morning. */
const props = defineProps<{ rules: PlanWeights }>()
const emit = defineEmits<{ save: [PlanWeights] }>()
type Single = Exclude<keyof PlanWeights, 'late' | 'unplanned'>
const SINGLE: { key: Single; label: string }[] = [
  { key: 'travel', label: 'A minute on the way' },
  { key: 'overtime', label: 'A minute of overtime' },
  { key: 'movedPromise', label: 'Moving a promised visit' },
  { key: 'movedPromiseMinute', label: 'and a minute beyond 15' },
  { key: 'handedPromise', label: 'Giving a promised visit to somebody else' },
  { key: 'moved', label: 'Moving a planned visit' },
  { key: 'handed', label: 'Giving a planned visit to somebody else' },
  { key: 'knows', label: 'Taken off for knowing the asset' },
  { key: 'repair', label: 'In a repair, moving counts times' },
]
const set = (change: Partial<PlanWeights>) => emit('save', { ...props.rules, ...change })
const example = computed(() => exampleOf(props.rules))
const clock = (minutes: number) => `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`
</script>

<template>
  <div class="entries">
    <NumberEntry
      v-for="priority in PRIORITIES"
      :id="`plan-late-${priority}`"
      :key="`late-${priority}`"
      :label="`${PRIORITY_NAMES[priority]}: a minute past target`"
      :least="0"
      :most="MOST_WEIGHT"
      :decimals="2"
      :model-value="rules.late[priority]"
      @update:model-value="$event !== null && set({ late: { ...rules.late, [priority]: $event } })"
    />
    <NumberEntry
      v-for="priority in PRIORITIES"
      :id="`plan-left-${priority}`"
      :key="`left-${priority}`"
      :label="`${PRIORITY_NAMES[priority]}: left undone`"
      :least="0"
      :most="MOST_WEIGHT"
      :decimals="2"
      :model-value="rules.unplanned[priority]"
      @update:model-value="$event !== null && set({ unplanned: { ...rules.unplanned, [priority]: $event } })"
    />
    <NumberEntry
      v-for="{ key, label } in SINGLE"
      :id="`plan-${key}`"
      :key="key"
      :label="label"
      :least="0"
      :most="MOST_WEIGHT"
      :decimals="2"
      :model-value="rules[key]"
      @update:model-value="$event !== null && set({ [key]: $event })"
    />
  </div>
  <h3>What that makes of an invented morning</h3>
  <p class="soft">Two people from 08:00 to 11:00, an hour of overtime allowed. Change a weight and see who goes where.</p>
  <table aria-label="Invented morning">
    <thead>
      <tr>
        <th scope="col">Job</th>
        <th scope="col">Begins</th>
        <th scope="col">Who</th>
        <th scope="col">Past target</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="job in example.jobs" :key="job.name">
        <td>{{ job.name }}</td>
        <td>{{ job.start === null ? 'left undone' : clock(job.start) }}</td>
        <td>{{ job.who }}</td>
        <td>{{ job.late ? `${job.late} min` : '' }}</td>
      </tr>
    </tbody>
  </table>
  <p class="soft">
    Weighed together {{ Math.round(example.figures.cost) }}:
    {{
      TERMS.filter((term) => Math.round(example.figures.terms[term]))
        .map((term) => `${TERM_NAMES[term]} ${Math.round(example.figures.terms[term])}`)
        .join(', ')
    }}.
  </p>
</template>

<style scoped src="./entries.css"></style>
<style scoped>
table {
  border-collapse: collapse;
}
th,
td {
  text-align: left;
  font-weight: 400;
  padding: 3px 16px 3px 0;
  border-bottom: 1px solid var(--line);
}
th {
  color: var(--ink-soft);
  font-size: 12px;
}
</style>
