<script setup lang="ts">
import { limitsSay } from '#core/methods'
import type { MethodStep } from '#core/methods'
import StepTag from './StepTag.vue'

/** The steps of a method, read. */
defineProps<{ steps: readonly MethodStep[] }>()
</script>

<template>
  <ol v-if="steps.length" class="steps" aria-label="Steps">
    <li v-for="(step, index) in steps" :key="index">
      <span>
        {{ step.text }}
        <span v-if="step.kind === 'measured'" class="mono soft">{{ limitsSay(step) || step.unit }}</span>
        <span v-else-if="step.kind === 'choice'" class="soft">{{ step.choices.join(' / ') }}</span>
        <span v-else-if="step.kind === 'photo'" class="soft">with a photo</span>
      </span>
      <StepTag v-if="step.first">before dispatch</StepTag>
      <StepTag v-if="step.after !== null">after step {{ step.after + 1 }}</StepTag>
    </li>
  </ol>
  <p v-else class="soft">It has no steps.</p>
</template>

<style scoped>
.steps {
  margin: 0 0 12px;
  padding-left: 24px;
}
.steps li {
  padding: 2px 0;
}
</style>
