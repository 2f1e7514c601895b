<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { nextTick, onMounted, onUnmounted, ref, shallowRef } from 'vue'
import { DialogBox, drawPage, openPdf } from '#web/kit'
import type { Pdf } from '#web/kit'
import type { ShownFile } from './shown'

/** A picture, a PDF page by page, or a text, looked at where one is. What cannot be shown is saved. */
const props = defineProps<{ file: ShownFile }>()
const emit = defineEmits<{ close: [] }>()
/** Of what lies on the device, once it was read. */
const url = ref(props.file.content ? '' : props.file.url)
const wrong = ref('')
const text = ref('')
const pdf = shallowRef<Pdf | null>(null)
const page = ref(1)
const canvas = ref<HTMLCanvasElement | null>(null)
const PAGE_PIXELS = 1_400
const MOST_TEXT = 200_000

async function read(): Promise<void> {
  const { file } = props
  if (!file.content && (file.shows === 'picture' || file.shows === 'nothing')) return
  const content = file.content ? await file.content() : await fetched(file.url)
  if (file.content) url.value = URL.createObjectURL(content)
  if (file.shows === 'text') return void (text.value = (await content.text()).slice(0, MOST_TEXT))
  if (file.shows !== 'pdf') return
  pdf.value = await openPdf(await content.arrayBuffer())
  await turn(1)
}
async function fetched(from: string): Promise<Blob> {
  const response = await fetch(from)
  if (!response.ok) throw new Error(String(response.status))
  return response.blob()
}
async function turn(to: number): Promise<void> {
  page.value = Math.min(Math.max(to, 1), pdf.value!.numPages)
  await nextTick()
  if (canvas.value) await drawPage(pdf.value!, page.value, canvas.value, PAGE_PIXELS)
}
onMounted(
  () =>
    void read().catch(() => (wrong.value = 'It cannot be shown here: it is damaged, asks for a password, or could not be read. Save it and open it yourself.')),
)
onUnmounted(() => {
  void pdf.value?.destroy()
  if (props.file.content) URL.revokeObjectURL(url.value)
})
function keys(event: KeyboardEvent): void {
  if (!pdf.value || !['PageDown', 'PageUp'].includes(event.key)) return
  event.preventDefault()
  void turn(page.value + (event.key === 'PageDown' ? 1 : -1))
}
</script>

<template>
  <DialogBox :title="file.title" broad @close="emit('close')">
    <div class="preview" @keydown="keys">
      <header>
        <h1>{{ file.title }}</h1>
        <span class="grow" />
        <div v-if="pdf && pdf.numPages > 1" class="pages" role="group" aria-label="Pages">
          <NButton size="small" :disabled="page === 1" @click="turn(page - 1)">Page before</NButton>
          <span class="mono" role="status">{{ page }} of {{ pdf.numPages }}</span>
          <NButton size="small" :disabled="page === pdf.numPages" @click="turn(page + 1)">Next page</NButton>
        </div>
        <a v-if="url" :href="url" :download="file.name">Save it</a>
        <NButton data-first size="small" @click="emit('close')">Close</NButton>
      </header>
      <p v-if="wrong" class="problem" role="alert">{{ wrong }}</p>
      <p v-else-if="file.shows === 'nothing'">A file of this kind is not shown here. Save it to open it.</p>
      <!-- What does not fit is scrolled, by key too. -->
      <div v-else class="content" tabindex="0" role="region" aria-label="Content">
        <img v-if="file.shows === 'picture' && url" :src="url" :alt="file.title" />
        <pre v-else-if="file.shows === 'text'">{{ text }}</pre>
        <canvas v-else-if="pdf" ref="canvas" role="img" :aria-label="`Page ${page} of ${file.title}`" />
        <div v-else class="bones" role="status" aria-label="Loading" />
      </div>
    </div>
  </DialogBox>
</template>

<style scoped>
.preview {
  display: grid;
  gap: 10px;
}
header {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 12px;
  align-items: center;
}
.grow {
  flex: 1;
}
.pages {
  display: flex;
  gap: 8px;
  align-items: center;
}
.content {
  max-height: min(74vh, 900px);
  overflow: auto;
  background: var(--paper);
  border: 1px solid var(--line);
  text-align: center;
}
img,
canvas {
  max-width: 100%;
  height: auto;
  display: inline-block;
}
pre {
  text-align: left;
  padding: 10px;
  margin: 0;
  white-space: pre-wrap;
  overflow-wrap: anywhere;
}
.bones {
  height: 300px;
}
</style>
