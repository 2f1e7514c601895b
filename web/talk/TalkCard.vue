<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { ref } from 'vue'
import type { Talk } from '#contract/field'
import type { CallProblem } from '#web/kit'
import TalkRows from './TalkRows.vue'
import WriteForm from './WriteForm.vue'
import type { Written } from './written'

/** The conversation of a job, on a phone. */
defineProps<{ talk: Talk; about: string; busy: boolean; problem: CallProblem | null; urlOf: (id: number) => string }>()
const emit = defineEmits<{ say: [written: Written] }>()
const writing = ref(false)
const form = ref<InstanceType<typeof WriteForm> | null>(null)
defineExpose({
  clear: () => {
    form.value?.clear()
    writing.value = false
  },
})
</script>

<template>
  <section class="card" aria-label="Messages">
    <h2>Messages</h2>
    <TalkRows v-if="talk.rows.length" :rows="talk.rows" :url-of="urlOf" />
    <p v-else class="label">Nobody has written yet.</p>
    <template v-if="writing">
      <WriteForm ref="form" :to="talk.to" :about="about" :busy="busy" :problem="problem" @say="emit('say', $event)" />
      <NButton @click="writing = false">Not now</NButton>
    </template>
    <NButton v-else-if="talk.to.length" @click="writing = true">Write a message</NButton>
  </section>
</template>
