<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { ref } from 'vue'
import { DictateButton, ShotsEntry, TextEntry, useDraft } from '#web/kit'
import type { CallProblem } from '#web/kit'

/** What is wrong here, as it was seen or told in passing: reported, or started on there and then. */
const props = defineProps<{
  /** What it is about, for what is typed and not sent. */
  about: string
  /** Why nothing can be started here; null when it can. */
  whyNot: string | null
  busy: boolean
  problem: CallProblem | null
}>()
export interface Said {
  text: string
  asker?: string
  askerEmail?: string
}
const emit = defineEmits<{ report: [said: Said, photos: Blob[]]; start: [said: Said, photos: Blob[]] }>()
const MOST_PHOTOS = 6
const text = useDraft(() => `spot-${props.about}`)
const asked = ref(false)
const asker = ref('')
const askerEmail = ref('')
const photos = ref<Blob[]>([])
function send(how: 'report' | 'start'): void {
  const said = {
    text: text.value.trim(),
    ...(asked.value && asker.value.trim() ? { asker: asker.value.trim() } : {}),
    ...(asked.value && askerEmail.value.trim() ? { askerEmail: askerEmail.value.trim() } : {}),
  }
  if (how === 'report') emit('report', said, photos.value)
  else emit('start', said, photos.value)
}
defineExpose({
  clear: () => {
    text.value = asker.value = askerEmail.value = ''
    photos.value = []
    asked.value = false
  },
})
</script>

<template>
  <form
    class="card"
    aria-label="Something is wrong here"
    @submit.prevent="text.trim() && send('report')"
    @keydown.ctrl.enter.prevent="text.trim() && send('report')"
  >
    <h2>Something is wrong here</h2>
    <TextEntry id="spot-text" v-model="text" label="What is wrong" long :max="2000" required :problem="problem?.at('text')" />
    <div class="ways">
      <DictateButton v-model="text" what="it" :max="2000" />
      <ShotsEntry id="spot-photo" v-model="photos" what="it" :most="MOST_PHOTOS" />
    </div>
    <template v-if="asked">
      <TextEntry id="spot-asker" v-model="asker" label="Who asked" :max="120" :problem="problem?.at('asker')" />
      <TextEntry
        id="spot-mail"
        v-model="askerEmail"
        label="Their mail address"
        kind="email"
        hint="They hear how it goes. Without one, nobody is written to."
        :problem="problem?.at('askerEmail')"
      />
    </template>
    <NButton v-else text type="primary" class="asked" @click="asked = true">Somebody asked me for it</NButton>
    <p v-if="problem" class="problem" role="alert">{{ problem.reasons[0]?.sentence ?? problem.message }}</p>
    <NButton type="primary" attr-type="submit" :disabled="busy || !text.trim()">Report it</NButton>
    <NButton v-if="whyNot === null" :disabled="busy || !text.trim()" @click="send('start')">Start on it now</NButton>
    <p v-else class="label">{{ whyNot }}</p>
  </form>
</template>

<style scoped>
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.asked {
  justify-self: start;
}
p {
  margin: 0;
}
</style>
