<script setup lang="ts">
import { NModal } from 'naive-ui/es/modal'
import { nextTick, ref, watch } from 'vue'

/** A dialog that holds the keyboard until it is left, and gives the focus back. */
defineProps<{ title: string; wide?: boolean; broad?: boolean }>()
const emit = defineEmits<{ close: [] }>()
const box = ref<HTMLElement | null>(null)

/** The keyboard is in what says it comes first, otherwise in the first field, as soon as it is there. */
const begin = (shown: HTMLElement) =>
  shown.querySelector<HTMLElement>('[data-first] :is(input, [tabindex="0"]), [data-first]:not(:has(input, [tabindex="0"]))') ??
  shown.querySelector<HTMLElement>('input, textarea, button')
watch(box, (shown) => shown && void nextTick(() => begin(shown)?.focus()))
</script>

<template>
  <NModal show :auto-focus="false" :close-on-esc="false" :block-scroll="false" transform-origin="center" @update:show="(shown) => shown || emit('close')">
    <!-- A div: what keeps the keyboard inside looks for one. -->
    <div ref="box" class="box" :class="{ wide, broad }" role="dialog" aria-modal="true" :aria-label="title" @keydown.esc.stop="emit('close')">
      <slot />
    </div>
  </NModal>
</template>

<style scoped>
.box {
  color: var(--ink);
  text-align: left;
  width: min(560px, calc(100vw - 32px));
  margin: 72px auto 16px;
  background: var(--sheet);
  border: 1px solid var(--line);
  border-radius: 6px;
  box-shadow: 0 12px 40px rgb(0 0 0 / 30%);
  padding: 16px;
}
.box.wide {
  width: min(760px, calc(100vw - 32px));
}
.box.broad {
  width: min(1060px, calc(100vw - 32px));
}
</style>
