<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { ref } from 'vue'
import { makeMyFeed, readMyFeed, revokeMyFeed } from '#contract/feeds'
import { call, CallProblem, freshKey, ProblemNote, useLoading } from '#web/kit'
import FeedAddress from './FeedAddress.vue'

/** One's own visits in one's own calendar. */
const feed = useLoading(() => call(readMyFeed, {}))
void feed.load()
const busy = ref(false)
const problem = ref('')
async function act(run: () => Promise<{ address: string | null }>): Promise<void> {
  busy.value = true
  problem.value = ''
  try {
    feed.value.value = await run()
  } catch (error) {
    if (!(error instanceof CallProblem)) throw error
    problem.value = error.reasons[0]?.sentence ?? error.message
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <section class="card" aria-label="My calendar">
    <h2>My calendar</h2>
    <ProblemNote v-if="feed.problem.value" :problem="feed.problem.value" @retry="feed.load" />
    <template v-else-if="feed.value.value">
      <p>A calendar program can read your visits from a secret address. Whoever has it reads them.</p>
      <FeedAddress v-if="feed.value.value.address" id="my-feed" :address="feed.value.value.address" />
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
      <div class="acts">
        <NButton :disabled="busy" @click="act(() => call(makeMyFeed, {}, { key: freshKey() }))">{{
          feed.value.value.address ? 'Make another instead' : 'Make the address'
        }}</NButton>
        <NButton v-if="feed.value.value.address" :disabled="busy" @click="act(() => call(revokeMyFeed, {}))">Take it back</NButton>
      </div>
    </template>
    <div v-else class="bones" />
  </section>
</template>

<style scoped>
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-top: 8px;
}
</style>
