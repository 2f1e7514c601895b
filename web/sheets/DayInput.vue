<script setup lang="ts">
import { MomentEntry } from '#web/kit'

/** A day on a Sheet; it keeps itself when left. */
const props = defineProps<{ id: string; label: string; value: string | null; problem?: string }>()
const emit = defineEmits<{ save: [value: string | null, base: string | null] }>()
function keep(typed: string): void {
  if ((typed || null) !== props.value) emit('save', typed || null, props.value)
}
</script>

<template>
  <MomentEntry :id="id" day :label="label" :model-value="value ?? ''" :problem="problem" @update:model-value="keep" />
</template>
