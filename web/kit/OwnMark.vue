<script setup lang="ts">
import type { OwnMark } from '#core/orders'

/** The mark of a state of a site’s own: a shape in the colour of the text around it. */
defineProps<{ mark: OwnMark }>()
const SHAPES: Record<OwnMark, { path: string; filled: boolean }> = {
  dot: { path: 'M6 2a4 4 0 1 1 0 8a4 4 0 1 1 0-8z', filled: true },
  ring: { path: 'M6 2.2a3.8 3.8 0 1 1 0 7.6a3.8 3.8 0 1 1 0-7.6z', filled: false },
  square: { path: 'M2.5 2.5h7v7h-7z', filled: true },
  frame: { path: 'M2.5 2.5h7v7h-7z', filled: false },
  triangle: { path: 'M6 2l4.5 8h-9z', filled: true },
  diamond: { path: 'M6 1.5l4.5 4.5l-4.5 4.5l-4.5-4.5z', filled: true },
  bars: { path: 'M2 3.5h8M2 6h8M2 8.5h8', filled: false },
  cross: { path: 'M2.5 2.5l7 7M9.5 2.5l-7 7', filled: false },
}
</script>

<template>
  <svg class="own-mark" width="12" height="12" viewBox="0 0 12 12" aria-hidden="true">
    <path :d="SHAPES[mark].path" :class="{ filled: SHAPES[mark].filled }" />
  </svg>
</template>

<style scoped>
.own-mark {
  vertical-align: -1px;
  flex: none;
}
path {
  fill: none;
  stroke: currentcolor;
  stroke-width: 1.6;
}
.filled {
  fill: currentcolor;
  stroke: none;
}
</style>
