<script setup lang="ts">
import { ref } from 'vue'
import { readOutcomeLists } from '#contract/field'
import { VISIT_RESULT_NAMES, VISIT_RESULTS } from '#core/dispatch'
import type { VisitResult } from '#core/dispatch'
import { call, useDraft, useLoading } from '#web/kit'

/** Leaving a job: done with symptom, cause and fix, or why not. */
const props = defineProps<{
  outcome: { symptom: string | null; cause: string | null; fix: string | null }
  busy: boolean
  /** Orders of the group it leads that are not over. */
  openMembers?: string[]
  sentenceAt: (field: string) => string | undefined
}>()
const emit = defineEmits<{
  finish: [{ result: VisitResult; symptom?: string; cause?: string; fix?: string; note?: string; releaseMembers?: boolean }]
  leave: []
}>()
const lists = useLoading(() => call(readOutcomeLists, {}))
void lists.load()
const result = ref<VisitResult>('done')
const symptom = ref(props.outcome.symptom ?? '')
const cause = ref(props.outcome.cause ?? '')
const fix = ref(props.outcome.fix ?? '')
const note = useDraft(() => `finish-${location.pathname}`)
const released = ref(false)
</script>

<template>
  <form
    class="card"
    aria-label="Leave the job"
    @submit.prevent="emit('finish', { result, symptom, cause, fix, note, ...(openMembers?.length ? { releaseMembers: released } : {}) })"
  >
    <h2>Leave the job</h2>
    <fieldset>
      <legend class="label">How does it stand?</legend>
      <label v-for="one in VISIT_RESULTS" :key="one"><input v-model="result" type="radio" name="result" :value="one" /> {{ VISIT_RESULT_NAMES[one] }}</label>
    </fieldset>
    <template v-if="result === 'done'">
      <div
        v-for="[name, label, list, model] in [
          ['symptom', 'What was wrong', lists.value.value?.symptoms, symptom],
          ['cause', 'Why', lists.value.value?.causes, cause],
          ['fix', 'What was done', lists.value.value?.fixes, fix],
        ] as const"
        :key="name"
        class="field"
      >
        <label :for="`out-${name}`">{{ label }}</label>
        <select
          :id="`out-${name}`"
          class="entry"
          :value="model"
          :aria-invalid="!!sentenceAt(name)"
          @change="
            (event) => {
              const value = (event.target as HTMLSelectElement).value
              if (name === 'symptom') symptom = value
              else if (name === 'cause') cause = value
              else fix = value
            }
          "
        >
          <option value="">Choose</option>
          <option v-for="one in list" :key="one" :value="one">{{ one }}</option>
        </select>
        <p v-if="sentenceAt(name)" class="problem" role="alert">{{ sentenceAt(name) }}</p>
      </div>
      <div v-if="openMembers?.length" class="members">
        <p>It leads {{ openMembers.join(', ') }}, not over yet.</p>
        <label><input v-model="released" type="checkbox" /> They go on by themselves, whole</label>
        <p v-if="sentenceAt('members')" class="problem" role="alert">{{ sentenceAt('members') }}</p>
      </div>
    </template>
    <div class="field">
      <label for="out-note">Anything to add</label><textarea id="out-note" v-model="note" class="entry" maxlength="2000" />
      <p v-if="sentenceAt('reason')" class="problem" role="alert">{{ sentenceAt('reason') }}</p>
    </div>
    <button class="push first" :disabled="busy">{{ result === 'done' ? 'Finish' : 'Leave' }}</button>
    <button class="push" type="button" @click="emit('leave')">Not yet</button>
  </form>
</template>

<style scoped>
fieldset {
  border: 0;
  margin: 0;
  padding: 0;
  display: grid;
}
fieldset label,
.members label {
  min-height: 48px;
  display: flex;
  align-items: center;
  gap: 10px;
}
input[type='radio'] {
  width: 20px;
  height: 20px;
}
</style>
