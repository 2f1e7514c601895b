<script setup lang="ts">
import { NumberEntry } from '#web/kit'
import { ref, watch } from 'vue'

/** A whole number on a Sheet; it keeps itself when left, and with Enter. */
const props = defineProps<{ id: string; label: string; value: number | null; unit?: string; most?: number; problem?: string }>()
const emit = defineEmits<{ save: [value: number | null, base: number | null] }>()
const typed = ref(props.value)
watch(
  () => props.value,
  (now) => (typed.value = now),
)
function keep(): void {
  if (typed.value !== props.value) emit('save', typed.value, props.value)
}
</script>

<template>
  <div @focusout="keep" @keydown.enter="keep">
    <NumberEntry :id="id" v-model="typed" :label="label" :least="0" :most="most" :unit="unit" :problem="problem" />
  </div>
</template>
