<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { ref } from 'vue'
import type { KeptFile } from '#contract/requests'
import { FileEntry, CallProblem, PhotoEditor } from '#web/kit'

/** Photos and documents: taken, chosen or dropped; a photo can be cut and drawn on before it is sent. */
const MOST = 10
const LARGEST = 15 * 1024 * 1024
const props = defineProps<{
  upload: (file: Blob, name: string) => Promise<KeptFile>
  /** Where a file sent ahead can be had again, after the page was read anew. */
  again?: (claim: string) => string
  problem?: string
  label: string
}>()
const files = defineModel<KeptFile[]>({ required: true })
const previews = ref<Record<string, string>>({})
const busy = ref(0)
const wrong = ref<string[]>([])
const editing = ref<{ file: Blob; name: string; claim: string | null } | null>(null)
const originals = new Map<string, { file: Blob; name: string }>()
const dragging = ref(false)

function dropped(event: DragEvent): void {
  dragging.value = false
  void addAll([...(event.dataTransfer?.files ?? [])])
}

async function addAll(list: File[]): Promise<void> {
  wrong.value = []
  for (const file of list) {
    if (files.value.length >= MOST) {
      wrong.value.push(`${file.name}: ten files are the most. Remove one first.`)
      continue
    }
    await add(file, file.name)
  }
}

async function add(file: Blob, name: string): Promise<boolean> {
  if (file.size > LARGEST) {
    wrong.value.push(`${name} is larger than 15 MB. Send a smaller one.`)
    return false
  }
  busy.value++
  try {
    const kept = await props.upload(file, name)
    files.value = [...files.value, kept]
    originals.set(kept.claim, { file, name })
    if (kept.kind === 'picture') previews.value[kept.claim] = URL.createObjectURL(file)
    return true
  } catch (error) {
    wrong.value.push(`${name}: ${error instanceof CallProblem ? (error.reasons[0]?.sentence ?? error.message) : 'it was not taken.'}`)
    return false
  } finally {
    busy.value--
  }
}

function remove(claim: string): void {
  files.value = files.value.filter((file) => file.claim !== claim)
}
async function edit(file: KeptFile): Promise<void> {
  const original = originals.get(file.claim) ?? (await fetched(file))
  if (original) editing.value = { ...original, claim: file.claim }
}
/** The photo as it was sent ahead, when this page has it no more. */
async function fetched(file: KeptFile): Promise<{ file: Blob; name: string } | null> {
  const answer = props.again ? await fetch(props.again(file.claim)).catch(() => null) : null
  if (!answer?.ok) {
    wrong.value.push(`${file.name} cannot be opened now. Try again, or add it anew.`)
    return null
  }
  return { file: await answer.blob(), name: file.name }
}
const preview = (file: KeptFile) => previews.value[file.claim] ?? (props.again && file.kind === 'picture' ? props.again(file.claim) : undefined)
async function edited(picture: Blob): Promise<void> {
  const { name, claim } = editing.value!
  if (!(await add(picture, name.replace(/\.\w+$/, '') + '.jpg'))) return
  if (claim) remove(claim)
  editing.value = null
}
</script>

<template>
  <div class="field drop" :class="{ dragging }" @dragover.prevent="dragging = true" @dragleave="dragging = false" @drop.prevent="dropped">
    <FileEntry id="files" :label="label" press="Choose files" multiple :disabled="busy > 0 || files.length >= MOST" @choose="addAll" />
    <p v-if="busy" class="label" role="status">Sending a file …</p>
    <p v-for="one in wrong" :key="one" class="problem" role="alert">{{ one }}</p>
    <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    <ul v-if="files.length" class="kept" aria-label="Files to be sent">
      <li v-for="(file, index) in files" :key="file.claim">
        <img v-if="preview(file)" :src="preview(file)" :alt="`Photo ${index + 1}`" />
        <span v-else class="name"
          >{{ file.name }}<br /><span class="label">{{ Math.max(1, Math.round(file.bytes / 1024)) }} kB</span></span
        >
        <NButton v-if="preview(file)" :aria-label="`Cut or draw on photo ${index + 1}`" @click="edit(file)">Cut or draw</NButton>
        <NButton :aria-label="`Remove ${file.name}`" @click="remove(file.claim)">Remove</NButton>
      </li>
    </ul>
    <PhotoEditor v-if="editing" :picture="editing.file" @done="edited" @leave="editing = null" />
  </div>
</template>

<style scoped>
.drop.dragging {
  outline: 2px dashed var(--tide);
  outline-offset: 4px;
}
.kept {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 8px;
}
.kept li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
}
.kept img {
  width: 96px;
  height: 72px;
  object-fit: cover;
  border-radius: 6px;
  border: 1px solid var(--line);
}
.name {
  min-width: 96px;
  overflow-wrap: anywhere;
}
</style>
