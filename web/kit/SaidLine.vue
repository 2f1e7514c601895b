<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { useUndo } from './undo'

/** What was done last, in a sentence, and the way back while there is one. */
defineProps<{ keys?: boolean }>()
const undo = useUndo()
</script>

<template>
  <p v-if="undo.said" class="said" :class="{ wrong: undo.said.wrong }" role="status">
    {{ undo.said.sentence }}
    <NButton v-if="undo.said.undoable" @click="undo.undoLast()">Undo <kbd v-if="keys">U</kbd></NButton>
  </p>
</template>

<style scoped>
.said {
  position: fixed;
  left: 50%;
  bottom: 16px;
  transform: translateX(-50%);
  z-index: 60;
  display: flex;
  gap: 12px;
  align-items: center;
  max-width: min(640px, calc(100vw - 32px));
  margin: 0;
  background: var(--ink);
  color: var(--paper);
  border-radius: 6px;
  padding: 8px 14px;
  box-shadow: 0 6px 24px rgb(0 0 0 / 30%);
}
.said.wrong {
  border-left: 6px solid var(--buoy);
  color: var(--paper);
}
:focus-visible {
  outline-color: #9fe0da;
}
</style>
