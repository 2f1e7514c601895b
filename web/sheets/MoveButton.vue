<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import type { OfferedMove } from './offeredMove'

/** One move of a Sheet: filled when it leads on, and pressed for the reasons when it is not possible. */
defineProps<{ move: OfferedMove; busy?: boolean }>()
const emit = defineEmits<{ press: [] }>()
</script>

<template>
  <NButton
    size="small"
    :type="move.onward && !move.reasons.length ? 'primary' : 'default'"
    :aria-disabled="move.reasons.length > 0"
    :disabled="busy"
    :data-move="move.move"
    @click="emit('press')"
  >
    {{ move.label }}<span v-if="move.reason === 'required' && !move.reasons.length" class="asks" title="A reason is needed">…</span
    ><kbd v-if="move.key">{{ move.key.toUpperCase() }}</kbd>
  </NButton>
</template>

<style scoped>
kbd {
  font: 11px var(--mono);
  border: 1px solid currentcolor;
  border-radius: 3px;
  padding: 0 4px;
  margin-left: 6px;
}
</style>
