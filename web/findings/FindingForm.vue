<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { NCheckbox } from 'naive-ui/es/checkbox'
import { computed, defineAsyncComponent, onMounted, ref } from 'vue'
import { readSurroundings } from '#contract/findings'
import { FINDING_SEVERITIES, FINDING_SEVERITY_NAMES } from '#core/findings'
import type { FindingSeverity } from '#core/findings'
import type { Point } from '#core/floorplans'
import { useCarried } from '#web/devices'
import { ChoiceEntry, DictateButton, ShotsEntry, TextEntry, useDraft } from '#web/kit'
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

const photos = ref<Blob[]>([])
/** It opens where it is seen, however much lies above it. */
const form = ref<HTMLFormElement | null>(null)
onMounted(() => form.value?.scrollIntoView?.({ block: 'start' }))

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
    photos: photos.value,
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
    <ShotsEntry id="finding-photo" v-model="photos" what="it" :most="MOST_PHOTOS" />
    <NCheckbox v-model:checked="fixedNow">I put it right at once</NCheckbox>
    <p v-if="problem" class="problem" role="alert">{{ problem.reasons[0]?.sentence ?? problem.message }}</p>
    <NButton type="primary" attr-type="submit" :disabled="busy || !text.trim()">Record it</NButton>
    <NButton @click="emit('leave')">Not now</NButton>
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
</style>
