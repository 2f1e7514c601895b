<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { onUnmounted, ref } from 'vue'
import { recognitionHere } from './dictation'
import type { Recognition } from './dictation'
import { writingHere } from './format'

/** Says a text instead of typing it, where the browser can hear; nothing where it cannot. */
const text = defineModel<string>({ required: true })
const props = defineProps<{ max?: number; what: string }>()
const Heard = recognitionHere()
const running = ref<Recognition | null>(null)
const wrong = ref('')

function start(): void {
  wrong.value = ''
  const recognition = new Heard!()
  Object.assign(recognition, { lang: writingHere().locale, continuous: true, interimResults: false })
  // On the device itself, where the browser has that: what is said on the job is nobody else’s.
  if ('processLocally' in recognition) recognition.processLocally = true
  recognition.onresult = ({ results, resultIndex }) => {
    const said = Array.from(results)
      .slice(resultIndex)
      .flatMap((one) => (one.isFinal ? one[0].transcript.trim() : []))
    const now = [text.value.trim(), ...said].filter(Boolean).join(' ')
    text.value = props.max ? now.slice(0, props.max) : now
  }
  recognition.onerror = ({ error }) => {
    if (error === 'no-speech' || error === 'aborted') return
    wrong.value = error === 'not-allowed' ? 'The browser may not use the microphone here. Type it instead.' : 'It cannot be heard now. Type it instead.'
  }
  recognition.onend = () => (running.value = null)
  running.value = recognition
  recognition.start()
}
const stop = () => running.value?.stop()
onUnmounted(stop)
</script>

<template>
  <div v-if="Heard" class="dictate">
    <NButton size="small" :aria-pressed="running !== null" @click="running ? stop() : start()">{{ running ? 'Stop listening' : `Dictate ${what}` }}</NButton>
    <span v-if="running" class="label" role="status">Listening</span>
    <p v-if="wrong" class="problem" role="alert">{{ wrong }}</p>
  </div>
</template>

<style scoped>
.dictate {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
}
p {
  margin: 0;
}
</style>
