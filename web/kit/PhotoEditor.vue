<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { onMounted, onUnmounted, ref, shallowRef, watch } from 'vue'
import DialogBox from './DialogBox.vue'
import { draw, isMeant } from './markUp'
import type { Mark, Point } from './markUp'

/** Cut, turn and draw on a photo before it is sent: what matters is shown, what must not be seen is not. */
const props = defineProps<{ picture: Blob }>()
const emit = defineEmits<{ done: [Blob]; leave: [] }>()
type Tool = 'arrow' | 'ring' | 'line' | 'blur' | 'crop'
const TOOLS: Record<Tool, string> = { arrow: 'Arrow', ring: 'Ring', line: 'Draw', blur: 'Blur', crop: 'Cut' }
const tool = ref<Tool>('arrow')
const marks = ref<Mark[]>([])
const drawing = ref<Mark | null>(null)
const source = shallowRef<ImageBitmap | null>(null)
const stage = ref<HTMLCanvasElement | null>(null)
const failed = ref(false)
const busy = ref(false)

onMounted(async () => {
  try {
    source.value = await createImageBitmap(props.picture, { imageOrientation: 'from-image' })
  } catch {
    failed.value = true
  }
})
onUnmounted(() => source.value?.close())
watch([source, marks, drawing], show, { deep: true })

function show(): void {
  if (!source.value || !stage.value) return
  // Cutting shows at once only when it is finished; until then the frame is drawn.
  const pending = drawing.value?.kind === 'crop' ? { ...drawing.value, kind: 'ring' as const } : drawing.value
  const made = draw(source.value, pending ? [...marks.value, pending] : marks.value)
  stage.value.width = made.width
  stage.value.height = made.height
  stage.value.getContext('2d')!.drawImage(made, 0, 0)
}

function pointOf(event: PointerEvent): Point {
  const box = stage.value!.getBoundingClientRect()
  const share = (value: number) => Math.min(1, Math.max(0, value))
  return { x: share((event.clientX - box.left) / box.width), y: share((event.clientY - box.top) / box.height) }
}
function begin(event: PointerEvent): void {
  stage.value!.setPointerCapture(event.pointerId)
  const at = pointOf(event)
  drawing.value = tool.value === 'line' ? { kind: 'line', points: [at] } : { kind: tool.value, from: at, to: at }
}
function move(event: PointerEvent): void {
  const now = drawing.value
  if (!now || now.kind === 'turn') return
  const at = pointOf(event)
  drawing.value = now.kind === 'line' ? { ...now, points: [...now.points, at] } : { ...now, to: at }
}
function end(): void {
  if (drawing.value && isMeant(drawing.value)) marks.value.push(drawing.value)
  drawing.value = null
}

function finish(): void {
  busy.value = true
  draw(source.value!, marks.value).toBlob(
    (blob) => {
      busy.value = false
      if (blob) emit('done', blob)
      else failed.value = true
    },
    'image/jpeg',
    0.88,
  )
}
</script>

<template>
  <DialogBox title="Cut or draw on the photo" wide @close="emit('leave')">
    <div class="editor">
      <p v-if="failed" class="problem" role="alert">This photo cannot be drawn on here. Send it as it is.</p>
      <div class="tools" role="toolbar" aria-label="Tools">
        <NButton v-for="(name, one) in TOOLS" :key="one" :class="{ on: tool === one }" :aria-pressed="tool === one" @click="tool = one">
          {{ name }}
        </NButton>
        <NButton @click="marks.push({ kind: 'turn' })">Turn</NButton>
        <NButton :disabled="!marks.length" @click="marks.pop()">Undo</NButton>
      </div>
      <canvas
        ref="stage"
        class="stage"
        role="img"
        aria-label="The photo with what was drawn on it; draw with a finger or a mouse"
        @pointerdown.prevent="begin"
        @pointermove="move"
        @pointerup="end"
        @pointercancel="drawing = null"
      />
      <div class="acts">
        <NButton type="primary" :disabled="!source || busy" @click="finish">Use this photo</NButton>
        <NButton @click="emit('leave')">Leave it as it was</NButton>
      </div>
    </div>
  </DialogBox>
</template>

<style scoped>
.editor {
  display: grid;
  gap: 10px;
}
.tools,
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.tools .push,
.on {
  background: var(--shoal);
  border-color: var(--tide);
  font-weight: 600;
}
.stage {
  max-width: 100%;
  max-height: 52vh;
  justify-self: center;
  touch-action: none;
  border: 1px solid var(--line);
  cursor: crosshair;
}
</style>
