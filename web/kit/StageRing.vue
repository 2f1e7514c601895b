<script setup lang="ts">
import { computed } from 'vue'
import { ORDER_STATE_NAMES, stageReached } from '#core/orders'
import type { OrderState } from '#core/orders'

/** Seven arcs, filled up to the stage reached; a dot when somebody is on it, a bar when it is on hold. */
const props = defineProps<{ state: OrderState; heldFrom?: OrderState | null; onlyRing?: boolean }>()
const reached = computed(() => stageReached(props.state, props.heldFrom ?? null))
const R = 5.5
const arcs = Array.from({ length: 7 }, (_, index) => {
  const gap = 0.16
  const from = (index / 7) * 2 * Math.PI - Math.PI / 2 + gap
  const to = ((index + 1) / 7) * 2 * Math.PI - Math.PI / 2 - gap
  const point = (angle: number) => `${(7 + R * Math.cos(angle)).toFixed(2)} ${(7 + R * Math.sin(angle)).toFixed(2)}`
  return `M${point(from)}A${R} ${R} 0 0 1 ${point(to)}`
})
</script>

<template>
  <span class="stage">
    <svg width="14" height="14" viewBox="0 0 14 14" aria-hidden="true">
      <path v-for="(arc, index) in arcs" :key="index" :d="arc" :class="index < reached ? 'on' : 'off'" />
      <circle v-if="state === 'on_job'" cx="7" cy="7" r="2" class="dot" />
      <path v-if="state === 'on_hold'" d="M1 7h12" class="bar" />
    </svg>
    <span v-if="!onlyRing">{{ ORDER_STATE_NAMES[state] }}</span>
  </span>
</template>

<style scoped>
.stage {
  display: inline-flex;
  align-items: center;
  gap: 5px;
  white-space: nowrap;
}
path {
  fill: none;
  stroke-width: 2.4;
}
.on {
  stroke: var(--tide);
}
.off {
  stroke: var(--line);
}
.bar {
  stroke: var(--ink);
  stroke-width: 1.8;
}
.dot {
  fill: var(--ink);
}
</style>
