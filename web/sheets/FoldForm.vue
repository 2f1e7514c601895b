<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { nextTick, ref } from 'vue'

/** A form that is out of sight until it is wanted, or while something typed waits in it. */
const props = defineProps<{ label: string; begun?: boolean }>()
const emit = defineEmits<{ send: [] }>()
const open = ref(!!props.begun)
const form = ref<HTMLElement | null>(null)
async function show(): Promise<void> {
  open.value = true
  await nextTick()
  form.value?.querySelector('input')?.focus()
}
defineExpose({ close: () => (open.value = false) })
</script>

<template>
  <form v-if="open" ref="form" class="line" :aria-label="label" @submit.prevent="emit('send')">
    <slot />
    <NButton size="small" @click="open = false">Leave it</NButton>
  </form>
  <p v-else>
    <NButton size="small" @click="show">{{ label }}</NButton>
  </p>
</template>

<style scoped src="./lines.css"></style>
