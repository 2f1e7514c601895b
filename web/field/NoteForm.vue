<script setup lang="ts">
import { DictateButton, TextEntry } from '#web/kit'
import { NButton } from 'naive-ui/es/button'
import type { CallProblem } from '#web/kit'

/** A note on the job, typed or dictated. */
defineProps<{ busy: boolean; problem: CallProblem | null }>()
const emit = defineEmits<{ add: []; leave: [] }>()
const note = defineModel<string>({ required: true })
</script>

<template>
  <form class="card" aria-label="Add a note" @submit.prevent="emit('add')">
    <TextEntry id="note" v-model="note" label="Note" long :max="2000" required />
    <DictateButton v-model="note" what="the note" :max="2000" />
    <p v-if="problem" class="problem" role="alert">{{ problem.reasons[0]?.sentence ?? problem.message }}</p>
    <NButton type="primary" attr-type="submit" :disabled="busy">Add the note</NButton>
    <NButton @click="emit('leave')">Not now</NButton>
  </form>
</template>
