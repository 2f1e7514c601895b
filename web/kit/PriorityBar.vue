<script setup lang="ts">
import { PRIORITY_NAMES } from '#core/requests'
import type { Priority } from '#core/requests'

/** A word over a bar of growing weight: thin, medium, thick, solid. Never a colour. */
defineProps<{ priority: Priority | null }>()
</script>

<template>
  <span v-if="priority" class="priority" :class="priority">{{ PRIORITY_NAMES[priority] }}</span>
  <span v-else class="priority none">No priority yet</span>
</template>

<style scoped>
.priority {
  display: inline-block;
  padding: 0 4px;
  border: 0 solid var(--ink);
  border-left-width: 1px;
  font-size: 12px;
  line-height: 16px;
  white-space: nowrap;
}
.routine {
  border-left-width: 3px;
}
.urgent {
  border-left-width: 6px;
  font-weight: 600;
}
.emergency {
  border-left-width: 6px;
  background: var(--ink);
  color: var(--sheet);
  font-weight: 700;
}
.none {
  border-left-style: dotted;
  color: var(--ink-soft);
}
</style>
