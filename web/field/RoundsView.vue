<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, ref, watch } from 'vue'
import { RouterLink, useRouter } from 'vue-router'
import { printMyDay } from '#contract/jobsheets'
import { listJobs } from '#contract/field'
import { address, ChoiceEntry, PhonePage, call, onLiveChange, ProblemNote, toLocalField, useLive, useLoading, useSession, useSoon, writtenDay } from '#web/kit'
import JobList from './JobList.vue'

/** The technician's day: jobs in the order of the plan. */
const session = useSession()
const live = useLive()
const router = useRouter()
const range = ref<'today' | 'week' | 'month'>('today')
const jobs = useLoading(() => call(listJobs, { range: range.value }))
watch(range, () => void jobs.load(), { immediate: true })
onLiveChange(useSoon(jobs.load, 200))
const next = computed(() => jobs.value.value?.next ?? [])

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
      <span>{{ session.self?.name }}</span><RouterLink to="/rounds/steps">My steps</RouterLink><RouterLink to="/rounds/time">My time</RouterLink
      ><RouterLink to="/readiness">Readiness</RouterLink><NButton @click="leave">Sign out</NButton>
    </header>
    <main>
      <ChoiceEntry id="range" v-model="range" label-hidden label="Which days" :options="RANGES" />
      <p class="paper"><NButton text type="primary" tag="a" target="_blank" :href="address(printMyDay, {})">Today on paper</NButton></p>
      <ProblemNote v-if="jobs.problem.value" :problem="jobs.problem.value" @retry="jobs.load" />
      <template v-else-if="jobs.value.value">
        <JobList v-if="jobs.value.value.rows.length" :jobs="jobs.value.value.rows" />
        <div v-else class="card">
          <h2>{{ range === 'today' ? 'Nothing planned today' : 'Nothing planned' }}</h2>
          <p>Jobs the desk sends you appear here by themselves, and in your mail.</p>
        </div>
        <section v-if="next[0]" class="next" aria-label="Next">
          <h2>Next, on {{ writtenDay(toLocalField(new Date(next[0].plannedStart))) }}</h2>
          <JobList :jobs="next" />
        </section>
      </template>
      <div v-else class="bones wait" />
    </main>
  </PhonePage>
</template>

<style scoped>
.top {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 12px;
}
.top h1 {
  margin-right: auto;
}
.paper {
  margin: 0;
}
.next {
  display: grid;
  gap: 10px;
}
.wait {
  height: 160px;
}
</style>
