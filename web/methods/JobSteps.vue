<script setup lang="ts">
import { computed } from 'vue'
import { listJobSteps } from '#contract/methods'
import { stepsWithActs } from '#core/field'
import { INSPECTION_NAMES, inspectionState } from '#core/methods'
import type { OrderKind } from '#core/orders'
import { useCarried, useCarrying } from '#web/devices'
import { onLiveChange, useSoon } from '#web/kit'
import type { StepActs, StepFinding } from './stepActs'
import StepRow from './StepRow.vue'

/** The steps of a job on the phone: done one after the other, each with what it asks for. */
const props = defineProps<{ visitId: number; orderKind: OrderKind; mayStop: boolean; found: number }>()
const emit = defineEmits<{ stop: []; find: [finding: StepFinding] }>()
const { visitId } = props
const carrying = useCarrying()
const steps = useCarried(listJobSteps, { visitId }, ({ rows }, acts, who) => ({ rows: stepsWithActs(rows, acts, who) }))
void steps.load()
onLiveChange(useSoon(steps.load, 200))
const rows = computed(() => steps.value.value?.rows ?? [])
const left = computed(() => rows.value.filter((step) => step.state === 'open').length)
const inspection = computed(() => (props.orderKind === 'inspection' ? inspectionState(rows.value, props.found) : null))
const acts: StepActs = {
  do: ({ text, unit }, input) => carrying.record({ name: 'step', visitId, input, shown: { name: text, unit: unit ?? undefined } }),
  undo: ({ text }, input) => carrying.record({ name: 'stepUndo', visitId, input, shown: { name: text } }),
  find: (finding) => emit('find', finding),
  photo: ({ text }, input, file) => carrying.record({ name: 'stepPhoto', visitId, input, shown: { name: text } }, file),
}
</script>

<template>
  <section v-if="rows.length || inspection" class="card" aria-label="Steps">
    <h2>
      Steps <span v-if="rows.length" class="label">{{ left ? `${left} of ${rows.length} to do` : 'all done' }}</span>
    </h2>
    <p v-if="inspection" role="status">Inspection: {{ INSPECTION_NAMES[inspection] }}</p>
    <StepRow
      v-for="step in rows"
      :key="`${step.id}-${step.version}`"
      :step="step"
      :waits-for="step.waitsFor"
      may-do
      :may-stop="mayStop"
      :acts="acts"
      @changed="steps.load"
      @stop="emit('stop')"
    />
  </section>
</template>
