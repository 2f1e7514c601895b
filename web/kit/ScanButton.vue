<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { nextTick, onUnmounted, ref } from 'vue'

/** Reads one code with the camera. Where there is none, the code is typed beside it. */
const props = defineProps<{ what?: string; disabled?: boolean }>()
const emit = defineEmits<{ code: [text: string] }>()
const open = ref(false)
const wrong = ref('')
const video = ref<HTMLVideoElement | null>(null)
let stop: (() => void) | null = null
/** Pressed again while the camera still wakes up, it is not wanted any more. */
let round = 0
const WHY: Record<string, string> = {
  NotAllowedError: 'The browser may not use the camera here. Type the code instead.',
  NotFoundError: 'There is no camera here. Type the code instead.',
}

async function start(): Promise<void> {
  const mine = ++round
  wrong.value = ''
  open.value = true
  await nextTick()
  try {
    // Only pages that came over a secure line have one.
    if (!navigator.mediaDevices) throw new DOMException('', 'NotFoundError')
    const { readCodes } = await import('./scanner')
    const stopReading = await readCodes(video.value!, (text) => {
      end()
      emit('code', text)
    })
    if (mine === round) stop = stopReading
    else stopReading()
  } catch (error) {
    end()
    wrong.value = WHY[error instanceof Error ? error.name : ''] ?? 'The camera cannot be used now. Type the code instead.'
  }
}
function end(): void {
  round++
  stop?.()
  stop = null
  open.value = false
}
onUnmounted(end)
</script>

<template>
  <div class="scan">
    <NButton :disabled="props.disabled" :aria-pressed="open" @click="open ? end() : start()">{{ open ? 'Stop scanning' : `Scan ${what ?? 'a code'}` }}</NButton>
    <template v-if="open">
      <video ref="video" muted playsinline aria-label="What the camera sees" />
      <p class="label" role="status">Hold the code in front of the camera.</p>
    </template>
    <p v-if="wrong" class="problem" role="alert">{{ wrong }}</p>
  </div>
</template>

<style scoped>
.scan {
  display: grid;
  gap: 8px;
}
video {
  width: 100%;
  max-height: 220px;
  object-fit: cover;
  background: var(--deep);
  border-radius: 6px;
}
p {
  margin: 0;
}
</style>
