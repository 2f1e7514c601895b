<script setup lang="ts">
/** The edge between two panes: dragged, or moved by the arrow keys. */
const props = defineProps<{ label: string; width: number; least: number; most: number; toward: 'left' | 'right' }>()
const emit = defineEmits<{ resize: [number] }>()
const sign = props.toward === 'right' ? 1 : -1

function drag(event: PointerEvent): void {
  const edge = event.currentTarget as HTMLElement
  const [from, width] = [event.clientX, props.width]
  edge.setPointerCapture(event.pointerId)
  const move = (moved: PointerEvent) => emit('resize', width + sign * (moved.clientX - from))
  edge.addEventListener('pointermove', move)
  edge.addEventListener('pointerup', () => edge.removeEventListener('pointermove', move), { once: true })
}

function step(event: KeyboardEvent): void {
  const by = { ArrowLeft: -16, ArrowRight: 16 }[event.key]
  if (!by) return
  event.preventDefault()
  emit('resize', props.width + sign * by)
}
</script>

<template>
  <div
    class="edge"
    role="separator"
    aria-orientation="vertical"
    tabindex="0"
    :aria-label="label"
    :aria-valuenow="width"
    :aria-valuemin="least"
    :aria-valuemax="most"
    @pointerdown="drag"
    @keydown="step"
  />
</template>

<style scoped>
.edge {
  width: 7px;
  margin: 0 -3px;
  z-index: 2;
  cursor: col-resize;
  background: linear-gradient(var(--line), var(--line)) center / 1px 100% no-repeat;
  touch-action: none;
}
.edge:hover {
  background: linear-gradient(var(--tide), var(--tide)) center / 3px 100% no-repeat;
}
</style>
