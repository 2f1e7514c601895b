<script setup lang="ts">
import { NInputNumber } from 'naive-ui/es/input-number'
import { onMounted, onUpdated, ref } from 'vue'
import FieldFrame from './FieldFrame.vue'

/** A whole number, or one with the given decimals, with its label and unit. */
defineProps<{
  id: string
  label: string
  labelHidden?: boolean
  least?: number
  most?: number
  step?: number
  decimals?: number
  unit?: string
  problem?: string | null
  hint?: string
  disabled?: boolean
}>()
const value = defineModel<number | null>({ required: true })
/** The component’s own steps have no name. */
const box = ref<HTMLElement | null>(null)
function nameSteps(): void {
  const steps = box.value?.querySelectorAll('.n-button') ?? []
  steps.forEach((step, index) => step.setAttribute('aria-label', index ? 'More' : 'Less'))
}
onMounted(nameSteps)
onUpdated(nameSteps)
</script>

<template>
  <FieldFrame :id="id" :label="label" :label-hidden="labelHidden" :problem="problem" :hint="hint">
    <div ref="box" class="number-box">
      <NInputNumber
        v-model:value="value"
        class="mono"
        placeholder=""
        :min="least"
        :max="most"
        :step="step"
        :precision="decimals ?? 0"
        :show-button="step !== undefined"
        :disabled="disabled"
        :input-props="{ id, 'aria-invalid': !!problem, ...(labelHidden ? { 'aria-label': label } : {}) }"
      >
        <template v-if="unit" #suffix>{{ unit }}</template>
      </NInputNumber>
    </div>
  </FieldFrame>
</template>

<style scoped>
.number-box {
  width: 100%;
}
</style>
