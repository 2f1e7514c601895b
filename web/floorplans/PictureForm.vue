<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { ref, shallowRef } from 'vue'
import { layPicture, movePicture } from '#contract/floorplans'
import type { Floorplan } from '#contract/floorplans'
import { call, CallProblem, DialogBox, FileEntry, NumberEntry, openPdf, pictureOfPage, useUndo } from '#web/kit'
import type { Pdf } from '#web/kit'

/** What lies under the drawing: a picture, or a page of a PDF; where its corner is, how wide it is and how strongly it shows. */
const props = defineProps<{ plan: Floorplan }>()
const emit = defineEmits<{ close: []; changed: [plan: Floorplan] }>()
const undo = useUndo()
const wrong = ref('')
const busy = ref(false)
const pdf = shallowRef<Pdf | null>(null)
const page = ref<number | null>(1)
const file = shallowRef<File | null>(null)
const PAGE_PIXELS = 1_800
const form = ref({ ...(props.plan.picture ?? { left: 0, bottom: 0, width: 40, strength: 60 }) })

async function act(run: () => Promise<Floorplan>, sentence: string): Promise<void> {
  busy.value = true
  wrong.value = ''
  try {
    const now = await run()
    if (now.picture) form.value = { ...now.picture }
    undo.say(sentence)
    emit('changed', now)
  } catch (error) {
    wrong.value =
      error instanceof CallProblem ? (error.reasons[0]?.sentence ?? error.message) : 'The page could not be drawn. Nothing was changed; choose another file.'
  } finally {
    busy.value = false
  }
}
const lay = (picture: Blob) => call(layPicture, { id: props.plan.place.id, version: props.plan.version }, { file: picture })

async function choose([chosen]: File[]): Promise<void> {
  file.value = chosen ?? null
  pdf.value = null
  if (!chosen) return
  if (chosen.type !== 'application/pdf') return act(() => lay(chosen), 'The picture lies under the plan.')
  wrong.value = ''
  try {
    pdf.value = await openPdf(await chosen.arrayBuffer())
  } catch {
    wrong.value = 'The PDF could not be opened: it is damaged or asks for a password. Nothing was changed.'
    return
  }
  if (pdf.value.numPages === 1) await layPage()
}
const layPage = () =>
  act(async () => {
    const picture = await pictureOfPage(pdf.value!, Math.min(Math.max(page.value ?? 1, 1), pdf.value!.numPages), PAGE_PIXELS)
    return lay(new File([picture], `${file.value!.name.replace(/\.pdf$/i, '')} page ${page.value ?? 1}.png`, { type: 'image/png' }))
  }, 'The page lies under the plan.')

function keep(): void {
  const { left, bottom, width, strength } = form.value
  const asked = { id: props.plan.place.id, version: props.plan.version, picture: { left, bottom, width, strength: Math.round(strength) } }
  void act(() => call(movePicture, asked), 'The picture was moved.')
}
const takeAway = () => act(() => call(movePicture, { id: props.plan.place.id, version: props.plan.version, picture: null }), 'The picture was taken away.')
</script>

<template>
  <DialogBox title="Picture under the plan" @close="emit('close')">
    <h1>Picture under the plan</h1>
    <p class="soft">{{ plan.picture ? plan.picture.name : 'A scan, a photo or a page of a PDF to draw over or to compare with.' }}</p>
    <FileEntry
      id="plan-picture"
      label="Picture or PDF"
      :press="plan.picture ? 'Choose another' : 'Choose a file'"
      accept="image/*,application/pdf"
      :disabled="busy"
      @choose="choose"
    />
    <div v-if="pdf && pdf.numPages > 1" class="grid">
      <NumberEntry id="plan-page" v-model="page" :label="`Which of its ${pdf.numPages} pages`" :least="1" :most="pdf.numPages" />
      <NButton class="level" :disabled="busy" @click="layPage">Lay this page</NButton>
    </div>
    <p v-if="wrong" class="problem" role="alert">{{ wrong }}</p>
    <form v-if="plan.picture" class="grid" @submit.prevent="keep">
      <NumberEntry id="picture-left" v-model="form.left" label="Left edge, east" unit="m" :decimals="2" :step="0.5" />
      <NumberEntry id="picture-bottom" v-model="form.bottom" label="Lower edge, north" unit="m" :decimals="2" :step="0.5" />
      <NumberEntry id="picture-width" v-model="form.width" label="Width" unit="m" :decimals="2" :least="0.1" :step="0.5" />
      <NumberEntry id="picture-strength" v-model="form.strength" label="How strongly it shows" unit="%" :least="5" :most="100" :step="5" />
      <div class="acts">
        <NButton type="primary" attr-type="submit" :disabled="busy">Keep</NButton>
        <NButton :disabled="busy" @click="takeAway">Take it away</NButton>
        <NButton @click="emit('close')">Close</NButton>
      </div>
    </form>
  </DialogBox>
</template>

<style scoped>
.grid {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px 12px;
  margin-top: 12px;
}
.level {
  align-self: end;
}
.acts {
  grid-column: 1 / -1;
  display: flex;
  gap: 8px;
}
</style>
