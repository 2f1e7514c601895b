<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, ref } from 'vue'
import { doubtOf } from '#core/meters'
import type { ReadingAnswer, ReadingDoubt } from '#core/meters'
import { serverNow, TextEntry } from '#web/kit'

/** What a meter shows. One that is not like those before it is asked about once, at once. */
const props = defineProps<{
  meter: { id: number; name: string; unit: string; rollsAt: string | null }
  /** Those that count. */
  readings: readonly { value: string; at: string; anew: boolean }[]
  busy: boolean
  /** What the server said of it. */
  problem?: string | null
}>()
const emit = defineEmits<{ read: [reading: { value: string; answer?: ReadingAnswer }] }>()
const typed = ref('')
const doubt = ref<ReadingDoubt | null>(null)
const wrong = ref('')
const value = computed(() => typed.value.trim().replace(/\s/g, '').replace(',', '.'))
const WORDS: Record<ReadingAnswer, string> = { rolled: 'It rolled over', exchanged: 'It is a new counter', sure: 'It is right' }

function send(answer?: ReadingAnswer): void {
  wrong.value = /^\d{1,10}(\.\d{1,3})?$/.test(value.value) ? '' : 'Write what it shows: digits, with at most three decimals.'
  if (wrong.value) return
  doubt.value = doubtOf(props.readings, { value: value.value, at: serverNow(), answer: answer ?? null }, props.meter)
  if (!doubt.value) emit('read', { value: value.value, ...(answer ? { answer } : {}) })
}
function again(): void {
  doubt.value = null
  typed.value = ''
}
/** It was taken: the next is another. */
defineExpose({ clear: again })
</script>

<template>
  <form class="reading" :aria-label="`Read ${meter.name}`" @submit.prevent="send()">
    <template v-if="!doubt">
      <TextEntry :id="`meter-${meter.id}`" v-model="typed" class="value" mono inputmode="decimal" :label="`Now, ${meter.unit}`" :problem="wrong || problem" />
      <NButton attr-type="submit" :disabled="busy || !typed.trim()">Write it down</NButton>
    </template>
    <div v-else class="doubt" role="alert">
      <p>
        <strong class="mono">{{ value }} {{ meter.unit }}</strong
        >? {{ doubt.sentence }}
      </p>
      <NButton @click="again">Read it again</NButton>
      <NButton v-for="answer in doubt.answers" :key="answer" :disabled="busy" @click="send(answer)">{{ WORDS[answer] }}</NButton>
    </div>
  </form>
</template>

<style scoped>
.reading,
.doubt {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: end;
}
.value {
  flex: 1 1 130px;
  max-width: 220px;
}
.doubt p {
  flex: 1 0 100%;
  margin: 0;
}
</style>
