<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, ref } from 'vue'
import type { Talk } from '#contract/field'
import { ChoiceEntry, ShotsEntry, TextEntry, useDraft } from '#web/kit'
import type { CallProblem } from '#web/kit'
import type { Written } from './written'

/** Writes to one of those who can be written to; who reads it stands on the button. */
const props = defineProps<{ to: Talk['to']; about: string; busy: boolean; problem: CallProblem | null }>()
const emit = defineEmits<{ say: [written: Written] }>()
const MOST_PHOTOS = 4
const text = useDraft(() => `talk-${props.about}`)
const photos = ref<Blob[]>([])
const keyOf = ({ audience, visitId }: Talk['to'][number]) => `${audience}-${visitId ?? ''}`
const chosen = ref('')
const reader = computed(() => props.to.find((one) => keyOf(one) === chosen.value) ?? props.to[0] ?? null)
const options = computed(() => props.to.map((one) => ({ value: keyOf(one), label: one.label })))
const HINTS = { ours: undefined, vendor: undefined, reporter: 'They are mailed what you write, and read it on their page.' }
function send(): void {
  if (!text.value.trim() || !reader.value) return
  emit('say', { audience: reader.value.audience, visitId: reader.value.visitId, text: text.value.trim(), photos: photos.value })
}
defineExpose({
  clear: () => {
    text.value = ''
    photos.value = []
  },
})
</script>

<template>
  <form v-if="reader" class="write" aria-label="Write" @submit.prevent="send" @keydown.ctrl.enter.prevent="send">
    <ChoiceEntry
      v-if="to.length > 1"
      :id="`talk-to-${about}`"
      apart
      label="Who reads it"
      :model-value="keyOf(reader)"
      :options="options"
      @update:model-value="chosen = $event as string"
    />
    <TextEntry
      :id="`talk-${about}`"
      v-model="text"
      :label="`To ${reader.label.replace(/^The /, 'the ').replace(/^Our /, 'our ')}`"
      long
      :max="2000"
      :hint="HINTS[reader.audience]"
      :problem="problem?.at('text') ?? problem?.at('audience')"
    />
    <ShotsEntry :id="`talk-photo-${about}`" v-model="photos" what="it" press="Add a photo" :most="MOST_PHOTOS" />
    <p v-if="problem && !problem.at('text') && !problem.at('audience')" class="problem" role="alert">{{ problem.reasons[0]?.sentence ?? problem.message }}</p>
    <NButton type="primary" attr-type="submit" :disabled="busy || !text.trim()">Send</NButton>
  </form>
</template>

<style scoped>
.write {
  display: grid;
  gap: 8px;
}
@media (min-width: 700px) {
  .write > .n-button {
    justify-self: start;
  }
}
p {
  margin: 0;
}
</style>
