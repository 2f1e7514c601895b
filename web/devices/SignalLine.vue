<script setup lang="ts">
import { computed } from 'vue'
import { useCarrying } from './carrying'

/** Says when there is no signal, and that nothing is lost by it. */
const carrying = useCarrying()
const waiting = computed(() => carrying.waiting.length)
const kept = computed(() => {
  if (!waiting.value) return 'You can go on; what you do is kept here.'
  return waiting.value === 1 ? 'One thing you did waits here until there is some.' : `${waiting.value} things you did wait here until there is some.`
})
</script>

<template>
  <p class="signal" role="status">
    <template v-if="carrying.away"> <strong>No signal.</strong> {{ kept }} </template>
    <template v-else-if="waiting">Sending {{ waiting }}</template>
  </p>
</template>

<style scoped>
.signal {
  margin: 0;
  padding: 8px 16px;
  background: var(--shoal);
  color: var(--ink);
}
.signal:empty {
  display: none;
}
</style>
