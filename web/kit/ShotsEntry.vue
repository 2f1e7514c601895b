<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { defineAsyncComponent, onUnmounted, ref } from 'vue'
import FileEntry from './FileEntry.vue'

/** Photos that go along with what is being recorded: taken, drawn on, taken out again. */
const props = defineProps<{ id: string; most: number; what: string; press?: string }>()
const photos = defineModel<Blob[]>({ required: true })
const PhotoEditor = defineAsyncComponent(() => import('./PhotoEditor.vue'))
const drawing = ref<number | null>(null)
/** One address for each, given up with the form. */
const urls = new Map<Blob, string>()
function urlOf(photo: Blob): string {
  if (!urls.has(photo)) urls.set(photo, URL.createObjectURL(photo))
  return urls.get(photo)!
}
onUnmounted(() => urls.forEach((url) => URL.revokeObjectURL(url)))
const add = (files: File[]) => (photos.value = [...photos.value, ...files].slice(0, props.most))
const drop = (index: number) => (photos.value = photos.value.filter((_, at) => at !== index))
function drawn(blob: Blob): void {
  photos.value = photos.value.map((one, at) => (at === drawing.value ? blob : one))
  drawing.value = null
}
</script>

<template>
  <ul v-if="photos.length" class="shots" :aria-label="`Photos of ${what}`">
    <li v-for="(photo, index) in photos" :key="urlOf(photo)">
      <img :src="urlOf(photo)" :alt="`Photo ${index + 1}`" />
      <NButton size="small" :aria-label="`Draw on photo ${index + 1}`" @click="drawing = index">Draw on</NButton>
      <NButton size="small" quaternary :aria-label="`Take out photo ${index + 1}`" @click="drop(index)">Take out</NButton>
    </li>
  </ul>
  <FileEntry
    :id="id"
    label-hidden
    :label="press ?? `Photo of ${what}`"
    :press="photos.length ? 'Another photo' : (press ?? `Photo of ${what}`)"
    accept="image/*"
    multiple
    :disabled="photos.length >= most"
    @choose="add"
  />
  <PhotoEditor v-if="drawing !== null" :picture="photos[drawing]!" @done="drawn" @leave="drawing = null" />
</template>

<style scoped>
.shots {
  margin: 0;
  padding: 0;
  list-style: none;
  display: grid;
  gap: 8px;
}
.shots li {
  display: flex;
  gap: 8px;
  align-items: center;
}
.shots img {
  width: 84px;
  height: 64px;
  object-fit: cover;
  border-radius: 6px;
  border: 1px solid var(--line);
}
</style>
