<script setup lang="ts">
import { ref } from 'vue'
import { readIntakeSetup } from '#contract/setup'
import type { IntakeSetup } from '#contract/setup'
import { call, CallProblem, ProblemNote, useLoading, useUndo } from '#web/kit'
import ApiKeys from './ApiKeys.vue'
import CategoryList from './CategoryList.vue'
import CounterFieldsTable from './CounterFieldsTable.vue'
import SetupTabs from './SetupTabs.vue'
import WordingEditor from './WordingEditor.vue'

/** How requests come in: what the Counter asks, categories and their questions, the words of mails, API keys. */
const setup = useLoading(() => call(readIntakeSetup, {}))
void setup.load()
const said = useUndo()
const problem = ref<CallProblem | null>(null)

/** Saves, says so, and keeps a refusal for the form that was sent. */
async function keep(change: () => Promise<IntakeSetup>, done: string): Promise<boolean> {
  problem.value = null
  try {
    setup.value.value = await change()
    said.say(done)
    return true
  } catch (error) {
    if (!(error instanceof CallProblem)) throw error
    problem.value = error
    said.say(error.reasons[0]?.sentence ?? error.message, undefined, true)
    return false
  }
}
</script>

<template>
  <div class="page">
    <header>
      <h1>Setup</h1>
      <SetupTabs />
    </header>
    <ProblemNote v-if="setup.problem.value && !setup.value.value" :problem="setup.problem.value" @retry="setup.load" />
    <template v-else-if="setup.value.value">
      <CounterFieldsTable :setup="setup.value.value" :keep="keep" />
      <CategoryList :setup="setup.value.value" :keep="keep" :problem="problem" />
      <WordingEditor :setup="setup.value.value" :keep="keep" :problem="problem" />
      <ApiKeys :setup="setup.value.value" :keep="keep" />
    </template>
    <div v-else class="bones wait" />
  </div>
</template>

<style scoped src="../kit/page.css"></style>
