<script setup lang="ts" generic="Value extends string | number">
import { NSelect } from 'naive-ui/es/select'
import { onMounted, onUpdated, ref } from 'vue'
import FieldFrame from './FieldFrame.vue'
import { typeFirst } from './typeFirst'

/** One of a list that is opened, found by typing part of it. */
const props = defineProps<{
  id: string
  label: string
  labelHidden?: boolean
  inline?: boolean
  options: readonly { value: Value; label: string; disabled?: boolean }[]
  problem?: string | null
  hint?: string
  placeholder?: string
  disabled?: boolean
  clearable?: boolean
  small?: boolean
}>()
const value = defineModel<Value | null>({ required: true })
const root = ref<HTMLElement | null>(null)
const mend = () => typeFirst(root.value)
onMounted(mend)
onUpdated(mend)
</script>

<template>
  <div ref="root" class="list-entry">
    <FieldFrame :id="id" :label="label" :label-hidden="labelHidden" :inline="inline" :problem="problem" :hint="hint">
      <NSelect
        :value="value === '' ? null : value"
        filterable
        :options="[...options]"
        :clearable="clearable"
        :disabled="disabled"
        :placeholder="placeholder"
        :size="props.small ? 'small' : undefined"
        :status="problem ? 'error' : undefined"
        :show-checkmark="false"
        :input-props="{ id, 'aria-label': label, autocomplete: 'off' }"
        @update:value="(picked: Value | null) => (value = picked)"
      />
    </FieldFrame>
  </div>
</template>
