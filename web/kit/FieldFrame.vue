<script setup lang="ts">
import { NFormItem } from 'naive-ui/es/form'

/** A field with its label above, or before it in a bar of tools, and, below it, what the server says about it, or else a hint. */
defineProps<{ id?: string; label: string; problem?: string | null; hint?: string; labelHidden?: boolean; inline?: boolean }>()
</script>

<template>
  <NFormItem
    class="field-frame"
    :label-placement="inline ? 'left' : 'top'"
    :show-label="!labelHidden"
    :label-props="{ for: id }"
    :show-feedback="!!(problem || hint || $slots.below)"
    :validation-status="problem ? 'error' : undefined"
  >
    <template #label>{{ label }}<slot name="mark" /></template>
    <slot />
    <template #feedback>
      <p v-if="problem" :id="`${id}-says`" class="problem" role="alert">{{ problem }}</p>
      <p v-else-if="hint" :id="`${id}-says`">{{ hint }}</p>
      <slot name="below" />
    </template>
  </NFormItem>
</template>
