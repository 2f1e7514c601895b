<script setup lang="ts">
import { FINDING_SEVERITIES, FINDING_SEVERITY_NAMES } from '#core/findings'
import type { FindingSeverity } from '#core/findings'

/** How bad, in words; the worse, the heavier. */
defineProps<{ severity: FindingSeverity }>()
</script>

<template>
  <span class="severity" :class="`weight-${FINDING_SEVERITIES.indexOf(severity)}`">{{ FINDING_SEVERITY_NAMES[severity] }}</span>
</template>

<style scoped>
.severity {
  display: inline-block;
  padding-bottom: 1px;
  margin-right: 6px;
  border-bottom: 1px solid var(--ink);
  white-space: nowrap;
}
.weight-1 {
  border-bottom-width: 3px;
  font-weight: 600;
}
.weight-2 {
  border-bottom: 0;
  padding: 1px 6px;
  border-radius: 3px;
  background: var(--ink);
  color: var(--sheet);
  font-weight: 600;
}
</style>
