<script setup lang="ts">
import { NInputNumber } from 'naive-ui/es/input-number'
import FieldFrame from './FieldFrame.vue'

/** A whole number, or one with the given decimals, with its label and unit. */
defineProps<{
  id: string
  label: string
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
</script>

<template>
  <FieldFrame :id="id" :label="label" :problem="problem" :hint="hint">
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
      :input-props="{ id, 'aria-invalid': !!problem }"
    >
      <template v-if="unit" #suffix>{{ unit }}</template>
    </NInputNumber>
  </FieldFrame>
</template>
