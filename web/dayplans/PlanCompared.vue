<script setup lang="ts">
import { computed } from 'vue'
import type { DayPlan } from '#contract/dayplans'
import type { PlanFigures } from '#core/dayplans'
import { PRIORITIES, PRIORITY_NAMES } from '#core/requests'
import { formatMinor } from '#core/kit'
import { spellShort } from '#web/kit'

/** The plan that stands and the computed one in figures, side by side, with what no plan could come below. */
const props = defineProps<{ result: NonNullable<DayPlan['result']>; bound: DayPlan['bound'] }>()

const leftOf = (figures: PlanFigures) => {
  const parts = PRIORITIES.filter((one) => figures.unplanned[one]).map((one) => `${figures.unplanned[one]} ${PRIORITY_NAMES[one]}`)
  return parts.join(', ') || 'none'
}
const points = (value: number) => Math.round(value).toLocaleString('en-IE')
const ROWS: { name: string; of: (figures: PlanFigures) => string; differs: (figures: PlanFigures) => number }[] = [
  { name: 'Jobs done', of: ({ planned }) => String(planned), differs: ({ planned }) => planned },
  { name: 'Left undone', of: leftOf, differs: (one) => PRIORITIES.reduce((sum, key) => sum + one.unplanned[key], 0) },
  {
    name: 'Past target',
    of: ({ lateJobs, lateMinutes }) => (lateJobs ? `${lateJobs}, ${spellShort(lateMinutes)}` : 'none'),
    differs: ({ lateMinutes }) => lateMinutes,
  },
  { name: 'Travel', of: ({ travelMinutes }) => spellShort(travelMinutes), differs: ({ travelMinutes }) => travelMinutes },
  {
    name: 'Overtime',
    of: ({ overtimeMinutes }) => (overtimeMinutes ? spellShort(overtimeMinutes) : 'none'),
    differs: ({ overtimeMinutes }) => overtimeMinutes,
  },
  { name: 'Work and travel cost', of: ({ costMinor }) => formatMinor(costMinor), differs: ({ costMinor }) => costMinor },
  { name: 'Weighed together', of: ({ cost }) => points(cost), differs: ({ cost }) => cost },
]
const rows = computed(() =>
  ROWS.map((row) => ({
    name: row.name,
    now: row.of(props.result.now),
    then: row.of(props.result.then),
    same: row.differs(props.result.now) === row.differs(props.result.then),
  })),
)
const quality = computed(() => {
  const { bound } = props
  if (bound.state === 'computing') return 'How much better any plan could be is still being worked out.'
  if (bound.state === 'none') return 'There was no time to work out how much better any plan could be.'
  const over = props.result.then.cost - bound.value
  if (over <= Math.max(0.5, 0.0005 * Math.abs(bound.value))) return 'No plan can be better: this is what is possible at all.'
  const percent = Math.ceil((over / Math.max(1, Math.abs(bound.value))) * 100)
  return `Within ${percent} % of what is possible at all.`
})
const moved = computed(() => props.result.moves.length)
</script>

<template>
  <p class="first">
    {{ moved === 0 ? 'Nothing would be better than what stands.' : moved === 1 ? 'One move would be made.' : `${moved} moves would be made.` }}
  </p>
  <table>
    <thead>
      <tr>
        <th scope="col"><span class="hidden">Figure</span></th>
        <th scope="col">As it stands</th>
        <th scope="col">Computed</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="row in rows" :key="row.name">
        <th scope="row">{{ row.name }}</th>
        <td>{{ row.now }}</td>
        <td :class="{ other: !row.same }">{{ row.then }}</td>
      </tr>
    </tbody>
  </table>
  <p class="soft" role="status">{{ quality }}</p>
  <section v-if="result.whatIf.length" aria-label="What if">
    <h3>What if</h3>
    <table>
      <thead>
        <tr>
          <th scope="col"><span class="hidden">What</span></th>
          <th scope="col">Left undone</th>
          <th scope="col">Overtime</th>
          <th scope="col">Weighed</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="one in result.whatIf" :key="one.words">
          <th scope="row">{{ one.words }}</th>
          <td>{{ leftOf(one.figures) }}</td>
          <td>{{ one.figures.overtimeMinutes ? spellShort(one.figures.overtimeMinutes) : 'none' }}</td>
          <td>{{ points(one.figures.cost) }}</td>
        </tr>
      </tbody>
    </table>
  </section>
</template>

<style scoped src="../board/panel.css"></style>
<style scoped>
table {
  border-collapse: collapse;
  width: 100%;
  font-size: 13px;
}
th,
td {
  text-align: left;
  font-weight: 400;
  padding: 3px 8px 3px 0;
  border-bottom: 1px solid var(--line);
  vertical-align: top;
}
td {
  font-variant-numeric: tabular-nums;
}
thead th {
  color: var(--ink-soft);
  font-size: 12px;
}
.other,
.first {
  font-weight: 600;
}
.hidden {
  position: absolute;
  width: 1px;
  height: 1px;
  overflow: hidden;
  clip-path: inset(50%);
}
</style>
