<script setup lang="ts">
import { readIntakeSetup } from '#contract/setup'
import { call, ProblemNote, useKeeping, useLoading } from '#web/kit'
import ApiKeys from './ApiKeys.vue'
import CategoryList from './CategoryList.vue'
import CounterFieldsTable from './CounterFieldsTable.vue'
import SetupTabs from './SetupTabs.vue'
import WordingEditor from './WordingEditor.vue'

/** How requests come in: what the Counter asks, categories and their questions, the words of mails, API keys. */
const setup = useLoading(() => call(readIntakeSetup, {}))
void setup.load()
const { problem, keep } = useKeeping(setup)
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
