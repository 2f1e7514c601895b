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
  /** Each stands by itself, below the others where they do not fit beside them: for a phone. */
  apart?: boolean
}>()
const value = defineModel<Value | null>({ required: true })
const chosen = computed({ get: () => value.value, set: (now) => (value.value = now) })
</script>

<template>
  <FieldFrame :label="label" :label-hidden="labelHidden" :inline="inline" :problem="problem" :hint="hint">
    <NRadioGroup v-model:value="chosen" :class="{ apart }" :name="id" :disabled="disabled" role="radiogroup" :aria-label="label">
      <NRadioButton v-for="one in options" :key="one.value" :value="one.value" :disabled="one.disabled">{{ one.label }}</NRadioButton>
    </NRadioGroup>
  </FieldFrame>
</template>

<style scoped>
.apart {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  height: auto;
  white-space: normal;
}
.apart :deep(.n-radio-group__splitor) {
  display: none;
}
.apart :deep(.n-radio-button) {
  flex: 1 0 auto;
  max-width: 100%;
  height: auto;
  min-height: var(--n-height);
  white-space: normal;
  text-align: center;
  border: 1px solid var(--line-strong);
  border-radius: 6px;
}
@media (forced-colors: active) {
  :deep(.n-radio-button--checked) {
    forced-color-adjust: none;
    background: Highlight;
    color: HighlightText;
  }
}
</style>
