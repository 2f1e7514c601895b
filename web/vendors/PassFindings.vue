<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { NCheckbox } from 'naive-ui/es/checkbox'
import { ref } from 'vue'
import type { JobFinding } from '#contract/field'
import { FINDING_SEVERITIES, FINDING_SEVERITY_NAMES, FINDING_STATE_NAMES } from '#core/findings'
import type { FindingSeverity } from '#core/findings'
import { ChoiceEntry, shortTime, ShotsEntry, TextEntry } from '#web/kit'
import type { CallProblem } from '#web/kit'

/** What else is wrong there, as the vendor found it; and what the job is to put right. */
defineProps<{
  findings: readonly JobFinding[]
  answers: readonly JobFinding[]
  over: boolean
  busy: boolean
  problem: CallProblem | null
  urlOf: (id: number) => string
}>()
export interface PassFound {
  text: string
  severity: FindingSeverity
  fixedNow: boolean
  photos: Blob[]
}
const emit = defineEmits<{ find: [found: PassFound]; takeBack: [mark: string] }>()
const MOST_PHOTOS = 4
const finding = ref(false)
const text = ref('')
const severity = ref<FindingSeverity>('repair')
const fixedNow = ref(false)
const photos = ref<Blob[]>([])
const SEVERITIES = FINDING_SEVERITIES.map((value) => ({ value, label: FINDING_SEVERITY_NAMES[value] }))
const find = () => emit('find', { text: text.value.trim(), severity: severity.value, fixedNow: fixedNow.value, photos: photos.value })
defineExpose({
  clear: () => {
    text.value = ''
    photos.value = []
    finding.value = fixedNow.value = false
  },
})
</script>

<template>
  <section v-if="answers.length" class="card" aria-label="To put right">
    <h2>To put right</h2>
    <div v-for="one in answers" :key="one.mark" class="found">
      <p>
        {{ one.text }}<br /><span class="label">{{ [FINDING_SEVERITY_NAMES[one.severity], one.where].filter(Boolean).join(', ') }}</span>
      </p>
      <div v-if="one.photos.length" class="thumbs">
        <a v-for="(photo, index) in one.photos" :key="photo.id" :href="urlOf(photo.id)" target="_blank"
          ><img :src="urlOf(photo.id)" :alt="`Photo ${index + 1} of ${one.text.slice(0, 40)}`"
        /></a>
      </div>
    </div>
  </section>
  <section v-if="!over || findings.length" class="card" aria-label="Found besides">
    <h2>Something else wrong there?</h2>
    <div v-for="one in findings" :key="one.mark" class="found">
      <p>
        {{ one.text }}<br /><span class="label">{{
          [FINDING_SEVERITY_NAMES[one.severity], FINDING_STATE_NAMES[one.state], shortTime(one.at)].join(', ')
        }}</span>
      </p>
      <div v-if="one.photos.length" class="thumbs">
        <a v-for="(photo, index) in one.photos" :key="photo.id" :href="urlOf(photo.id)" target="_blank"
          ><img :src="urlOf(photo.id)" :alt="`Photo ${index + 1} of ${one.text.slice(0, 40)}`"
        /></a>
      </div>
      <NButton v-if="one.mayTakeBack" size="small" :disabled="busy" :aria-label="`Take it back: ${one.text.slice(0, 60)}`" @click="emit('takeBack', one.mark)"
        >Take it back</NButton
      >
    </div>
    <form v-if="finding" aria-label="Record a finding" @submit.prevent="text.trim() && find()">
      <TextEntry id="pass-finding" v-model="text" label="What is wrong, and where exactly" long :max="2000" required :problem="problem?.at('text')" />
      <ChoiceEntry id="pass-severity" v-model="severity" apart label="How bad" :options="SEVERITIES" />
      <ShotsEntry id="pass-finding-photo" v-model="photos" what="it" :most="MOST_PHOTOS" />
      <NCheckbox v-model:checked="fixedNow">I put it right at once</NCheckbox>
      <p v-if="problem && !problem.at('text')" class="problem" role="alert">{{ problem.reasons[0]?.sentence ?? problem.message }}</p>
      <NButton type="primary" attr-type="submit" :disabled="busy || !text.trim()">Tell the desk</NButton>
      <NButton @click="finding = false">Not now</NButton>
    </form>
    <NButton v-else-if="!over" @click="finding = true">Record a finding</NButton>
  </section>
</template>

<style scoped>
form,
.found {
  display: grid;
  gap: 8px;
  justify-items: stretch;
}
.found {
  padding-bottom: 8px;
  border-bottom: 1px solid var(--line);
}
.found:last-child {
  border-bottom: 0;
}
.found .n-button {
  justify-self: start;
}
p {
  margin: 0;
}
.thumbs {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
img {
  height: 84px;
  border-radius: 6px;
  border: 1px solid var(--line);
}
</style>
