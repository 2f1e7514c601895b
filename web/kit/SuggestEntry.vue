<script setup lang="ts">
import { NAutoComplete } from 'naive-ui/es/auto-complete'
import { computed, useAttrs } from 'vue'
import FieldFrame from './FieldFrame.vue'

/** A line of text with what others wrote there before, offered while typing and never forced. */
defineOptions({ inheritAttrs: false })
const props = defineProps<{
  id: string
  label: string
  offers?: readonly string[]
  problem?: string | null
  hint?: string
  max?: number
  placeholder?: string
  disabled?: boolean
}>()
const text = defineModel<string>({ required: true })
const attrs = useAttrs()
const MOST = 8
const options = computed(() => {
  const typed = text.value.trim().toLowerCase()
  return typed ? (props.offers ?? []).filter((one) => one.toLowerCase().includes(typed) && one !== text.value).slice(0, MOST) : []
})
</script>

<template>
  <FieldFrame :id="id" :class="attrs.class" :label="label" :problem="problem" :hint="hint">
    <template #mark><slot name="mark" /></template>
    <NAutoComplete
      v-model:value="text"
      :options="options"
      :disabled="disabled"
      :placeholder="placeholder ?? ''"
      :input-props="{ id, maxlength: max, 'aria-invalid': !!problem, autocomplete: 'off' }"
      v-bind="{ ...attrs, class: undefined }"
    />
    <template v-if="$slots.below" #below><slot name="below" /></template>
  </FieldFrame>
</template>
