<script setup lang="ts">
import type { CallProblem } from '#web/kit'

/** A note on the job, typed or dictated. */
defineProps<{ busy: boolean; problem: CallProblem | null }>()
const emit = defineEmits<{ add: []; leave: [] }>()
const note = defineModel<string>({ required: true })
</script>

<template>
  <form class="card" aria-label="Add a note" @submit.prevent="emit('add')">
    <div class="field"><label for="note">Note</label><textarea id="note" v-model="note" class="entry" required maxlength="2000" /></div>
    <p v-if="problem" class="problem" role="alert">{{ problem.reasons[0]?.sentence ?? problem.message }}</p>
    <button class="push first" :disabled="busy">Add the note</button>
    <button class="push" type="button" @click="emit('leave')">Not now</button>
  </form>
</template>
