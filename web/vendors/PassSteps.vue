<script setup lang="ts">
import { computed } from 'vue'
import { addPassStepPhoto, doPassStep, undoPassStep } from '#contract/vendors'
import type { PassSheet } from '#contract/vendors'
import { StepRow } from '#web/methods'
import type { StepActs } from '#web/methods'
import { call } from '#web/kit'

/** The steps of a vendor’s job: those that are nobody’s by name are theirs to do. */
const props = defineProps<{ token: string; steps: PassSheet['steps']; over: boolean; urlOf: (id: number) => string }>()
const emit = defineEmits<{ changed: [now: PassSheet] }>()
const left = computed(() => props.steps.filter((step) => step.state === 'open').length)
const { token } = props
const done = (now: PassSheet) => {
  emit('changed', now)
  return now
}
const acts: StepActs = {
  do: (_step, { id, version, value, note, leave }) => call(doPassStep, { token, id, version, value, note, leave }).then(done),
  undo: (_step, { id, version }) => call(undoPassStep, { token, id, version }).then(done),
  photo: (_step, { id }, file) => call(addPassStepPhoto, { token, id }, { file }).then(done),
}
</script>

<template>
  <section v-if="steps.length" class="card" aria-label="Steps">
    <h2>
      Steps <span class="label">{{ left ? `${left} of ${steps.length} to do` : 'all done' }}</span>
    </h2>
    <StepRow
      v-for="step in steps"
      :key="`${step.id}-${step.version}`"
      :step="step"
      :waits-for="step.waitsFor"
      :may-do="!over && step.assignee === null"
      :acts="acts"
      :photo-url="urlOf"
    />
  </section>
</template>
