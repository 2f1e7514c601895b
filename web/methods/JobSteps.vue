<script setup lang="ts">
import { computed } from 'vue'
import { listJobSteps } from '#contract/methods'
import { call, onLiveChange, useLoading, useSoon } from '#web/kit'
import StepRow from './StepRow.vue'

/** The steps of a job on the phone: done one after the other, each with what it asks for. */
const props = defineProps<{ visitId: number }>()
const steps = useLoading(() => call(listJobSteps, { visitId: props.visitId }))
void steps.load()
onLiveChange(useSoon(steps.load, 200))
const rows = computed(() => steps.value.value?.rows ?? [])
const left = computed(() => rows.value.filter((step) => step.state === 'open').length)
</script>

<template>
  <section v-if="rows.length" class="card" aria-label="Steps">
    <h2>
      Steps <span class="label">{{ left ? `${left} of ${rows.length} to do` : 'all done' }}</span>
    </h2>
    <StepRow v-for="step in rows" :key="`${step.id}-${step.version}`" :step="step" :waits-for="step.waitsFor" may-do @changed="steps.load" />
  </section>
</template>
