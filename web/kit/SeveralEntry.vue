<script setup lang="ts">
import { NSelect } from 'naive-ui/es/select'
import FieldFrame from './FieldFrame.vue'

/** Several words out of a list, or others that are typed. */
defineProps<{
  id: string
  label: string
  offers: readonly string[]
  problem?: string | null
  hint?: string
  placeholder?: string
}>()
const words = defineModel<string[]>({ required: true })
</script>

<template>
  <FieldFrame :id="id" :label="label" :problem="problem" :hint="hint">
    <NSelect
      :value="words"
      multiple
      filterable
      tag
      :options="offers.map((name) => ({ value: name, label: name }))"
      :placeholder="placeholder ?? ''"
      :status="problem ? 'error' : undefined"
      :input-props="{ id, 'aria-label': label, autocomplete: 'off' }"
      @update:value="(picked: string[]) => (words = picked)"
    />
  </FieldFrame>
</template>
