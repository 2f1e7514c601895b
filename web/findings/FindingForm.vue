<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { NCheckbox } from 'naive-ui/es/checkbox'
import { computed, defineAsyncComponent, onMounted, onUnmounted, ref } from 'vue'
import { readSurroundings } from '#contract/findings'
import { FINDING_SEVERITIES, FINDING_SEVERITY_NAMES } from '#core/findings'
import type { FindingSeverity } from '#core/findings'
import type { Point } from '#core/floorplans'
import { useCarried } from '#web/devices'
import { ChoiceEntry, DictateButton, FileEntry, PhotoEditor, TextEntry, useDraft } from '#web/kit'
import type { CallProblem } from '#web/kit'
import { spaceAt, spotsOn, spotSays } from './found'
import type { NewlyFound, Spot } from './found'
import SpotPick from './SpotPick.vue'

/** Something wrong that was noticed on the way: what, where, how bad, with photos; fixed at once or not. */
const props = defineProps<{
  visitId: number
  /** Where the job is: where it is, unless it is said. */
  here: string | null
  /** The code of its place. */
  hereCode: string | null
  busy: boolean
  problem: CallProblem | null
}>()
const emit = defineEmits<{ record: [found: NewlyFound]; leave: [] }>()
const PinDialog = defineAsyncComponent(() => import('./PinDialog.vue'))
const MOST_PHOTOS = 6

const around = useCarried(readSurroundings, { visitId: props.visitId })
void around.load()
const floors = computed(() => around.value.value?.floors ?? [])
const spots = computed(() => spotsOn(floors.value))

const text = useDraft(() => `finding-${props.visitId}`)
const severity = ref<FindingSeverity>('repair')
const fixedNow = ref(false)
const spot = ref<Spot | null>(null)
const pin = ref<{ planId: number; at: Point } | null>(null)
const open = ref<'spot' | 'pin' | null>(null)
const where = computed(() => (spot.value ? spotSays(spot.value) : props.here))

const nearCode = computed(() => floors.value.flatMap(({ spaces }) => spaces).find(({ id }) => id === spot.value?.placeId)?.code ?? props.hereCode)

interface Shot {
  blob: Blob
  url: string
}
const photos = ref<Shot[]>([])
const drawing = ref<number | null>(null)
const shotOf = (blob: Blob): Shot => ({ blob, url: URL.createObjectURL(blob) })
const add = (files: File[]) => (photos.value = [...photos.value, ...files.map(shotOf)].slice(0, MOST_PHOTOS))
const drop = (index: number) => (photos.value = photos.value.filter((_, at) => at !== index))
function drawn(blob: Blob): void {
  photos.value = photos.value.map((one, at) => (at === drawing.value ? shotOf(blob) : one))
  drawing.value = null
}
/** It opens where it is seen, however much lies above it. */
const form = ref<HTMLFormElement | null>(null)
onMounted(() => form.value?.scrollIntoView?.({ block: 'start' }))
onUnmounted(() => photos.value.forEach(({ url }) => URL.revokeObjectURL(url)))

function pick(chosen: Spot): void {
  spot.value = chosen
  pin.value = null
  open.value = null
}
/** A pin says the room, too; where none is drawn, the room stays as it was said. */
function put(at: { planId: number; at: Point }): void {
  pin.value = at
  spot.value = spaceAt(floors.value.find(({ id }) => id === at.planId), at.at) ?? spot.value // prettier-ignore
  open.value = null
}
function record(): void {
  const { placeId, assetId } = spot.value ?? {}
  emit('record', {
    finding: {
      ...{ text: text.value.trim(), severity: severity.value, fixedNow: fixedNow.value },
      ...(placeId ? { placeId } : {}),
      ...(assetId ? { assetId } : {}),
      ...(pin.value ? { pin: pin.value } : {}),
    },
    where: where.value,
    photos: photos.value.map(({ blob }) => blob),
  })
}
/** What was typed is gone once it is recorded; who leaves finds it again. */
defineExpose({ clear: () => (text.value = '') })
const SEVERITIES = FINDING_SEVERITIES.map((value) => ({ value, label: FINDING_SEVERITY_NAMES[value] }))
</script>

<template>
  <form ref="form" class="card" aria-label="Record a finding" @submit.prevent="record" @keydown.ctrl.enter.prevent="text.trim() && record()">
    <h2>Something found</h2>
    <TextEntry id="finding" v-model="text" label="What is wrong" long :max="2000" required :problem="problem?.at('text')" />
    <DictateButton v-model="text" what="it" :max="2000" />
    <ChoiceEntry id="finding-severity" v-model="severity" apart label="How bad" :options="SEVERITIES" />
    <div class="where">
      <p><span class="label">Where</span><br />{{ where ?? 'Not said' }}<span v-if="pin" class="label"> · pinned on the plan</span></p>
      <div class="pair">
        <NButton :aria-expanded="open === 'spot'" @click="open = open === 'spot' ? null : 'spot'">Somewhere else</NButton>
        <NButton :disabled="!floors.length" @click="open = 'pin'">{{ pin ? 'Move the pin' : 'Pin on the plan' }}</NButton>
      </div>
      <SpotPick v-if="open === 'spot'" id="finding-spot" :spots="spots" @pick="pick" />
      <p v-if="problem?.at('placeId') ?? problem?.at('pin')" class="problem">{{ problem.at('placeId') ?? problem.at('pin') }}</p>
    </div>
    <ul v-if="photos.length" class="shots" aria-label="Photos of it">
      <li v-for="(photo, index) in photos" :key="photo.url">
        <img :src="photo.url" :alt="`Photo ${index + 1}`" />
        <NButton size="small" :aria-label="`Draw on photo ${index + 1}`" @click="drawing = index">Draw on</NButton>
        <NButton size="small" quaternary :aria-label="`Take out photo ${index + 1}`" @click="drop(index)">Take out</NButton>
      </li>
    </ul>
    <FileEntry
      id="finding-photo"
      label-hidden
      label="Photo of it"
      :press="photos.length ? 'Another photo' : 'Photo of it'"
      accept="image/*"
      multiple
      :disabled="photos.length >= MOST_PHOTOS"
      @choose="add"
    />
    <NCheckbox v-model:checked="fixedNow">I put it right at once</NCheckbox>
    <p v-if="problem" class="problem" role="alert">{{ problem.reasons[0]?.sentence ?? problem.message }}</p>
    <NButton type="primary" attr-type="submit" :disabled="busy || !text.trim()">Record it</NButton>
    <NButton @click="emit('leave')">Not now</NButton>
    <PhotoEditor v-if="drawing !== null" :picture="photos[drawing]!.blob" @done="drawn" @leave="drawing = null" />
    <PinDialog v-if="open === 'pin'" :floors="floors" :pin="pin" :near-code="nearCode" @put="put" @close="open = null" />
  </form>
</template>

<style scoped>
.where,
.pair {
  display: grid;
  gap: 8px;
}
.pair {
  grid-template-columns: 1fr 1fr;
}
.where p {
  margin: 0;
}
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
