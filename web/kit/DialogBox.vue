<script setup lang="ts">
import { nextTick, onMounted, onUnmounted, ref } from 'vue'

/** A dialog that holds the keyboard until it is left, and gives the focus back. */
defineProps<{ title: string; wide?: boolean }>()
const emit = defineEmits<{ close: [] }>()
const box = ref<HTMLElement | null>(null)
const before = document.activeElement as HTMLElement | null
const stops = () => [...(box.value?.querySelectorAll<HTMLElement>('a[href], button:not([disabled]), input, select, textarea, [tabindex="0"]') ?? [])]

onMounted(() => void nextTick(() => (box.value?.querySelector<HTMLElement>('[data-first], input, textarea') ?? stops()[0])?.focus()))
onUnmounted(() => before?.focus())

function keys(event: KeyboardEvent): void {
  if (event.key === 'Escape') {
    event.stopPropagation()
    emit('close')
  }
  if (event.key !== 'Tab') return
  const all = stops()
  const [first, last] = [all[0], all.at(-1)]
  if (event.shiftKey && document.activeElement === first) {
    event.preventDefault()
    last?.focus()
  } else if (!event.shiftKey && document.activeElement === last) {
    event.preventDefault()
    first?.focus()
  }
}
</script>

<template>
  <div class="veil" @pointerdown.self="$emit('close')">
    <section ref="box" class="box" :class="{ wide }" role="dialog" aria-modal="true" :aria-label="title" @keydown="keys">
      <slot />
    </section>
  </div>
</template>

<style scoped>
.veil {
  position: fixed;
  inset: 0;
  z-index: 50;
  background: rgb(15 58 67 / 45%);
  display: flex;
  justify-content: center;
  align-items: flex-start;
  padding: 72px 16px 16px;
  overflow: auto;
}
.box {
  color: var(--ink);
  text-align: left;
  width: min(560px, 100%);
  background: var(--sheet);
  border: 1px solid var(--line);
  border-radius: 6px;
  box-shadow: 0 12px 40px rgb(0 0 0 / 30%);
  padding: 16px;
}
.box.wide {
  width: min(760px, 100%);
}
</style>
