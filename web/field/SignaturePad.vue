<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import Pad from 'signature_pad'
import { onMounted, onUnmounted, ref } from 'vue'

/** Signed with a finger. The paper is white whatever the colours of the page, as what is kept is a picture of it. */
const emit = defineEmits<{ signed: [isSigned: boolean] }>()
const canvas = ref<HTMLCanvasElement | null>(null)
let pad: Pad | null = null
const isSigned = ref(false)
const HEIGHT = 160

function told(now: boolean): void {
  isSigned.value = now
  emit('signed', now)
}
onMounted(() => {
  const paper = canvas.value!
  const ratio = Math.max(1, window.devicePixelRatio || 1)
  paper.width = paper.offsetWidth * ratio
  paper.height = HEIGHT * ratio
  paper.getContext('2d')?.scale(ratio, ratio)
  pad = new Pad(paper, { backgroundColor: '#ffffff', penColor: '#17262b' })
  pad.addEventListener('endStroke', () => told(true))
})
onUnmounted(() => pad?.off())
function clear(): void {
  pad?.clear()
  told(false)
}
defineExpose({ picture: () => new Promise<Blob | null>((resolve) => canvas.value!.toBlob(resolve, 'image/jpeg', 0.9)) })
</script>

<template>
  <div class="signature">
    <canvas ref="canvas" role="img" :aria-label="isSigned ? 'Signed' : 'Sign here with a finger'" />
    <NButton size="small" :disabled="!isSigned" @click="clear">Sign again</NButton>
  </div>
</template>

<style scoped>
.signature {
  display: grid;
  gap: 6px;
  justify-items: start;
}
canvas {
  width: 100%;
  height: 160px;
  border: 1px solid var(--line-strong);
  border-radius: 6px;
  touch-action: none;
}
</style>
