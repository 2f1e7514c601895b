<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { ref } from 'vue'
import FieldFrame from './FieldFrame.vue'

/** Files of the device, by one button. The browser's own field does the choosing, out of sight. */
defineProps<{
  id: string
  label: string
  labelHidden?: boolean
  press?: string
  accept?: string
  multiple?: boolean
  disabled?: boolean
  hint?: string
  tiny?: boolean
}>()
const emit = defineEmits<{ choose: [files: File[]] }>()
const field = ref<HTMLInputElement | null>(null)
function chosen(): void {
  emit('choose', [...(field.value?.files ?? [])])
  // The same file may be chosen again.
  if (field.value) field.value.value = ''
}
</script>

<template>
  <FieldFrame :id="id" :label="label" :label-hidden="labelHidden" :hint="hint">
    <input
      :id="id"
      ref="field"
      class="hidden"
      type="file"
      tabindex="-1"
      :aria-label="label"
      :accept="accept"
      :multiple="multiple"
      :disabled="disabled"
      @change="chosen"
    />
    <NButton :size="tiny ? 'tiny' : undefined" :disabled="disabled" @click="field?.click()"
      ><slot>{{ press ?? 'Choose a file' }}</slot></NButton
    >
  </FieldFrame>
</template>
