<script setup lang="ts" generic="Value extends string | number">
import { NRadioButton, NRadioGroup } from 'naive-ui/es/radio'
import { computed } from 'vue'
import FieldFrame from './FieldFrame.vue'

/** One of up to five, all in sight. More are chosen in a ListEntry. */
defineProps<{
  id: string
  label: string
  labelHidden?: boolean
  inline?: boolean
  options: readonly { value: Value; label: string; disabled?: boolean }[]
  problem?: string | null
  hint?: string
  disabled?: boolean
}>()
const value = defineModel<Value | null>({ required: true })
const chosen = computed({ get: () => value.value, set: (now) => (value.value = now) })
</script>

<template>
  <FieldFrame :label="label" :label-hidden="labelHidden" :inline="inline" :problem="problem" :hint="hint">
    <NRadioGroup v-model:value="chosen" :name="id" :disabled="disabled" role="radiogroup" :aria-label="label">
      <NRadioButton v-for="one in options" :key="one.value" :value="one.value" :disabled="one.disabled">{{ one.label }}</NRadioButton>
    </NRadioGroup>
  </FieldFrame>
</template>

<style scoped>
@media (forced-colors: active) {
  :deep(.n-radio-button--checked) {
    forced-color-adjust: none;
    background: Highlight;
    color: HighlightText;
  }
}
</style>
