<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { ref, watch } from 'vue'
import { RouterLink, useRouter } from 'vue-router'
import { listJobs } from '#contract/field'
import { VISIT_KIND_NAMES } from '#core/dispatch'
import type { VisitKind } from '#core/dispatch'
import { ChoiceEntry, PhonePage, call, onLiveChange, PriorityBar, ProblemNote, shortTime, useLive, useLoading, useSession, useSoon } from '#web/kit'

/** The technician's day: jobs in the order of the plan. */
const session = useSession()
const live = useLive()
const router = useRouter()
const range = ref<'today' | 'week' | 'month'>('today')
const jobs = useLoading(() => call(listJobs, { range: range.value }))
watch(range, () => void jobs.load(), { immediate: true })
onLiveChange(useSoon(jobs.load, 200))
const STATES: Record<string, string> = { planned: 'Planned', on_site: 'On site', ended: 'Left' }

async function leave(): Promise<void> {
  await session.leave()
  live.close()
  await router.push({ name: 'signIn' })
}
const RANGES = [
  { value: 'today', label: 'Today' },
  { value: 'week', label: 'This week' },
  { value: 'month', label: 'Last month' },
] as const
</script>

<template>
  <PhonePage>
    <header class="top">
      <h1>Rounds</h1>
      <span>{{ session.self?.name }}</span><NButton @click="leave">Sign out</NButton>
    </header>
    <main>
      <ChoiceEntry id="range" v-model="range" label-hidden label="Which days" :options="RANGES" />
      <ProblemNote v-if="jobs.problem.value" :problem="jobs.problem.value" @retry="jobs.load" />
      <template v-else-if="jobs.value.value">
        <ol v-if="jobs.value.value.rows.length" class="jobs">
          <li v-for="job in jobs.value.value.rows" :key="job.visitId">
            <RouterLink class="card job" :class="{ now: job.visitState === 'on_site', over: job.visitState === 'ended' }" :to="`/rounds/${job.visitId}`">
              <span class="line"
                ><span class="mono">{{ shortTime(job.plannedStart) }}</span
                ><PriorityBar :priority="job.priority" /><span class="label">{{ STATES[job.visitState] }}</span></span
              >
              <strong>{{ job.summary }}</strong>
              <span
                ><span class="mono label">{{ job.placeCode }}</span> {{ job.placeName }}</span
              >
              <span class="label"
                ><span class="mono">{{ job.number }}</span
                >, {{ VISIT_KIND_NAMES[job.kind as VisitKind].toLowerCase() }}</span
              >
            </RouterLink>
          </li>
        </ol>
        <div v-else class="card">
          <h2>Nothing planned</h2>
          <p>Jobs the desk sends you appear here by themselves, and in your mail.</p>
        </div>
      </template>
      <div v-else class="bones wait" />
    </main>
  </PhonePage>
</template>

<style scoped>
.top {
  display: flex;
  align-items: center;
  gap: 12px;
}
.top h1 {
  margin-right: auto;
}
.jobs {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 10px;
}
.job {
  color: var(--ink);
  text-decoration: none;
  gap: 3px;
  border-left: 6px solid var(--line-strong);
}
.now {
  border-left-color: var(--tide);
  background: var(--shoal-faint);
}
.over {
  opacity: 0.75;
}
.line {
  display: flex;
  gap: 12px;
  align-items: center;
}
.wait {
  height: 160px;
}
</style>
