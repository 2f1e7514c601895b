<script setup lang="ts">
import type { TreeNode } from '#contract/portraits'
import { counted } from '#core/kit'

/** Open and late work of a branch: a number in a box, filled where some of it is past its target. */
defineProps<{ node: Pick<TreeNode, 'open' | 'late'> }>()
</script>

<template>
  <span v-if="node.open" class="badge mono" :class="{ late: node.late }" :title="`${counted(node.open, 'open order')}, ${node.late} past target`"
    >{{ node.open }}<template v-if="node.late">, {{ node.late }} late</template><span class="hidden"> open</span></span
  >
</template>

<style scoped>
.badge {
  font-size: 12px;
  padding: 0 6px;
  border: 1px solid var(--line-strong);
  border-radius: 9px;
  white-space: nowrap;
}
.badge.late {
  border-color: var(--buoy);
  color: var(--buoy);
}
</style>
