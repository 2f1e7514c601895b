<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { ref } from 'vue'
import { useRoute } from 'vue-router'
import { askForMine, readMine } from '#contract/requests'
import { TextEntry, PhonePage, call, CallProblem, longTime, ProblemNote, useLoading } from '#web/kit'

/** Everything somebody has sent: asked for by mail address, opened by the link mailed there. */
const route = useRoute()
const token = typeof route.params.token === 'string' ? route.params.token : null
const mine = useLoading(() => call(readMine, { token: token! }))
if (token) void mine.load()
const email = ref('')
const asked = ref(false)
const wrong = ref('')
const only = ref<string | null>(null)
const STEPS: Record<string, string> = {
  received: 'Received',
  question: 'A question for you',
  looking: 'Being looked at',
  scheduled: 'Scheduled',
  working: 'Being worked on',
  waiting: 'Waiting',
  done: 'Done',
  closed: 'Closed',
}

async function ask(): Promise<void> {
  wrong.value = ''
  try {
    await call(askForMine, { site: String(route.params.site), email: email.value })
    asked.value = true
  } catch (error) {
    wrong.value = error instanceof CallProblem ? (error.reasons[0]?.sentence ?? error.message) : 'It was not sent. Try again.'
  }
}
</script>

<template>
  <PhonePage>
    <header>
      <h1>What I have sent</h1>
      <p v-if="mine.value.value">{{ mine.value.value.email }}</p>
    </header>
    <main>
      <template v-if="token">
        <ProblemNote v-if="mine.problem.value && !mine.value.value" :problem="mine.problem.value" @retry="mine.load" />
        <template v-else-if="mine.value.value">
          <div class="counts" role="group" aria-label="Show only">
            <NButton :class="{ on: only === null }" :aria-pressed="only === null" @click="only = null"> All {{ mine.value.value.rows.length }} </NButton>
            <NButton
              v-for="one in mine.value.value.counts"
              :key="one.step"
              :class="{ on: only === one.step }"
              :aria-pressed="only === one.step"
              @click="only = one.step"
            >
              {{ STEPS[one.step] }} {{ one.count }}
            </NButton>
          </div>
          <RouterLink
            v-for="row in mine.value.value.rows.filter((one) => !only || one.progress.step === only)"
            :key="row.number"
            class="card row"
            :to="row.link"
          >
            <span class="label mono">{{ row.number }}, {{ longTime(row.receivedAt) }}</span>
            <strong>{{ row.summary }}</strong>
            <span v-if="row.place" class="label">{{ row.place }}</span>
            <span>{{ row.progress.sentence }}</span>
          </RouterLink>
          <p v-if="!mine.value.value.rows.length">Nothing has been sent from this address.</p>
          <p>
            <RouterLink :to="`/c/${mine.value.value.site.code}`">Report something else</RouterLink>
          </p>
        </template>
        <div v-else class="bones wait" />
      </template>
      <div v-else-if="asked" class="card" role="status">
        <h2>Look into your mail</h2>
        <p>If anything was sent from {{ email }}, a link to it is on its way there. It works for one day.</p>
      </div>
      <form v-else class="card" novalidate @submit.prevent="ask">
        <TextEntry id="mine-email" v-model="email" label="Your mail address" kind="email" :problem="wrong" autocomplete="email" />
        <p class="label">We mail you a link to everything you have sent. No password, no account.</p>
        <NButton type="primary" attr-type="submit">Mail me the link</NButton>
      </form>
    </main>
  </PhonePage>
</template>

<style scoped>
.counts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.on {
  background: var(--shoal);
  border-color: var(--tide);
}
.row {
  color: var(--ink);
  text-decoration: none;
}
.row:hover {
  border-color: var(--tide);
}
</style>
