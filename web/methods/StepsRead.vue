<script setup lang="ts">
import { limitsSay } from '#core/methods'
import type { MethodStep } from '#core/methods'

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
      <span v-if="step.first" class="tag">before dispatch</span>
      <span v-if="step.after !== null" class="tag">after step {{ step.after + 1 }}</span>
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
.tag {
  margin-left: 8px;
  font-size: 12px;
  color: var(--ink-soft);
  border: 1px solid var(--line-strong);
  border-radius: 3px;
  padding: 0 5px;
  white-space: nowrap;
}
</style>
