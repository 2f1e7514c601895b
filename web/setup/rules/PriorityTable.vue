<script setup lang="ts">
import type { RuleBook } from '#core/orders'
import {
  CONSEQUENCE_NAMES,
  CONSEQUENCES,
  HAZARD_LEVEL_NAMES,
  HAZARD_LEVELS,
  LIKELIHOOD_NAMES,
  LIKELIHOODS,
  PRIORITIES,
  PRIORITY_NAMES,
  SEVERITIES,
  SEVERITY_NAMES,
  URGENCIES,
  URGENCY_NAMES,
} from '#core/requests'
import type { Consequence, HazardLevel, Likelihood, Priority, Urgency } from '#core/requests'

/** What consequence and urgency give, and what severity and likelihood give. */
const props = defineProps<{ book: RuleBook }>()
const emit = defineEmits<{ matrix: [RuleBook['matrix']]; hazards: [RuleBook['hazards']] }>()
const valueOf = (event: Event) => (event.target as HTMLSelectElement).value
const setPriority = (row: Consequence, column: Urgency, priority: Priority) =>
  emit('matrix', { ...props.book.matrix, [row]: { ...props.book.matrix[row], [column]: priority } })
const setLevel = (row: Likelihood, column: number, level: HazardLevel) =>
  emit('hazards', { ...props.book.hazards, [row]: props.book.hazards[row].map((old, index) => (index === column ? level : old)) })
</script>

<template>
  <div class="scroll">
    <table class="plain-table">
      <thead>
        <tr>
          <th>Who is affected</th>
          <th v-for="urgency in URGENCIES" :key="urgency">{{ URGENCY_NAMES[urgency] }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="consequence in CONSEQUENCES" :key="consequence">
          <th scope="row">{{ CONSEQUENCE_NAMES[consequence] }}</th>
          <td v-for="urgency in URGENCIES" :key="urgency">
            <select
              class="entry"
              :value="book.matrix[consequence][urgency]"
              :aria-label="`${CONSEQUENCE_NAMES[consequence]}, ${URGENCY_NAMES[urgency]}`"
              @change="setPriority(consequence, urgency, valueOf($event) as Priority)"
            >
              <option v-for="priority in PRIORITIES" :key="priority" :value="priority">{{ PRIORITY_NAMES[priority] }}</option>
            </select>
          </td>
        </tr>
      </tbody>
    </table>
  </div>
  <h3>Hazards: severity against likelihood</h3>
  <p class="soft">A high hazard makes an Emergency, whatever the table above says. The others leave the priority alone.</p>
  <div class="scroll">
    <table class="plain-table">
      <thead>
        <tr>
          <th>How likely</th>
          <th v-for="severity in SEVERITIES" :key="severity">{{ SEVERITY_NAMES[severity] }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="likelihood in LIKELIHOODS" :key="likelihood">
          <th scope="row">{{ LIKELIHOOD_NAMES[likelihood] }}</th>
          <td v-for="(severity, column) in SEVERITIES" :key="severity">
            <select
              class="entry"
              :value="book.hazards[likelihood][column]"
              :aria-label="`Hazard ${LIKELIHOOD_NAMES[likelihood]}, ${SEVERITY_NAMES[severity]}`"
              @change="setLevel(likelihood, column, valueOf($event) as HazardLevel)"
            >
              <option v-for="level in HAZARD_LEVELS" :key="level" :value="level">{{ HAZARD_LEVEL_NAMES[level] }}</option>
            </select>
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
th[scope='row'] {
  text-align: left;
  font-weight: 400;
}
.scroll {
  overflow-x: auto;
}
.entry {
  min-width: 116px;
}
</style>
