<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, ref } from 'vue'
import { HAZARD_LEVEL_NAMES, LIKELIHOOD_NAMES, LIKELIHOODS, SEVERITIES, SEVERITY_NAMES } from '#core/requests'
import type { HazardSaid, HazardTable, Likelihood } from '#core/requests'
import { jumpTo } from '#web/kit'
import DecisionGrid from './DecisionGrid.vue'
import { hazardSays } from './hazardSays'

/** How likely and how severe: together they can raise the priority, and never lower it. Most jobs have no hazard. */
const props = defineProps<{
  table: HazardTable
  severity: HazardSaid['hazardSeverity']
  likelihood: Likelihood | null
  disabled?: boolean
  problem?: string
}>()
const emit = defineEmits<{ save: [Partial<HazardSaid>] }>()
const open = ref(false)
const known = computed(() => (props.severity && props.severity !== 'none' ? props.severity : null))
const says = computed(
  () => hazardSays({ decides: { hazards: props.table }, hazardSeverity: props.severity, hazardLikelihood: props.likelihood }) ?? 'Nothing is said of one',
)
function show(): void {
  open.value = true
  setTimeout(() => jumpTo('hazard-grid'))
}
</script>

<template>
  <div id="f-hazardSeverity" class="hazard" data-field="hazardLikelihood">
    <p class="line">
      <span class="soft">Hazard:</span> {{ says }}
      <NButton v-if="!disabled && !open" size="small" @click="show">{{ known ? 'Change it' : 'There is a hazard' }}</NButton>
      <NButton v-if="!disabled && severity !== 'none'" size="small" @click="((open = false), emit('save', { hazardSeverity: 'none', hazardLikelihood: null }))"
        >No hazard</NButton
      >
    </p>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <DecisionGrid
      v-if="open"
      id="f-hazard-grid"
      label="How likely, and how severe"
      :rows="LIKELIHOODS"
      :row-names="LIKELIHOOD_NAMES"
      :columns="SEVERITIES"
      :column-names="SEVERITY_NAMES"
      :row="likelihood"
      :column="known"
      :gives="(row, column) => HAZARD_LEVEL_NAMES[table[row][SEVERITIES.indexOf(column)]!]"
      :disabled="disabled"
      @choose="(hazardLikelihood, hazardSeverity) => emit('save', { hazardLikelihood, hazardSeverity })"
    />
  </div>
</template>

<style scoped>
.hazard {
  display: grid;
  gap: 8px;
  grid-column: 1 / -1;
}
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
}
</style>
