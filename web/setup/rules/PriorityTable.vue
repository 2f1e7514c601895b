<script setup lang="ts">
import { ListEntry, named } from '#web/kit'
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
            <ListEntry
              :id="`matrix-${consequence}-${urgency}`"
              small
              label-hidden
              :label="`${CONSEQUENCE_NAMES[consequence]}, ${URGENCY_NAMES[urgency]}`"
              :model-value="book.matrix[consequence][urgency]"
              :options="named(PRIORITIES, PRIORITY_NAMES)"
              @update:model-value="$event && setPriority(consequence, urgency, $event)"
            />
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
            <ListEntry
              :id="`hazard-${likelihood}-${severity}`"
              small
              label-hidden
              :label="`Hazard ${LIKELIHOOD_NAMES[likelihood]}, ${SEVERITY_NAMES[severity]}`"
              :model-value="book.hazards[likelihood][column] ?? null"
              :options="named(HAZARD_LEVELS, HAZARD_LEVEL_NAMES)"
              @update:model-value="$event && setLevel(likelihood, column, $event)"
            />
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
td {
  min-width: 130px;
}
</style>
