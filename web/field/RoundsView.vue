<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, ref, watch } from 'vue'
import { RouterLink, useRouter } from 'vue-router'
import { printMyDay } from '#contract/jobsheets'
import * as contract from '#contract/field'
import { jobsOn, nextDay, ROUND_RANGES, rowsWithActs } from '#core/field'
import { leaveDevice, SignalLine, TellHere, useCarried, useCarrying } from '#web/devices'
import {
  address,
  call,
  ChoiceEntry,
  dayAfter,
  MomentEntryLater,
  onLiveChange,
  PhonePage,
  ProblemNote,
  toLocalField,
  useLive,
  useLoading,
  useNow,
  useSession,
  useSoon,
  weekOf,
  writtenDay,
} from '#web/kit'
import { carryJobs } from './carryJobs'
import JobList from './JobList.vue'
import { useNews } from './seen'
import UnsentCard from './UnsentCard.vue'

/** The technician's day: jobs in the order of the plan, as they are carried along. */
const session = useSession()
const carrying = useCarrying()
const live = useLive()
const router = useRouter()
const range = ref<(typeof ROUND_RANGES)[number] | 'month' | 'day'>('today')
const day = ref('')
const jobs = useCarried(contract.carryJobs, {}, (read, acts) => ({ ...read, rows: rowsWithActs(read.rows, acts) }))
const { look, newsFor } = useNews()
void jobs.load().then(() => jobs.value.value && look(jobs.value.value.rows))
/** What lies before the days that are carried is asked for. */
const earlier = useLoading(() => call(contract.listJobs, range.value === 'day' ? { day: day.value } : { range: 'month' }))
const isEarlier = computed(() => range.value === 'month' || (range.value === 'day' && day.value !== ''))
watch([range, day], () => isEarlier.value && void earlier.load())
onLiveChange(useSoon(() => Promise.all([jobs.load(), isEarlier.value ? earlier.load() : null, carryJobs()]), 500))

const now = useNow()
const today = computed(() => dayOf(new Date(now.value).toISOString()))
const dayOf = (instant: string) => toLocalField(new Date(instant)).slice(0, 10)
const rows = computed(() => {
  const all = jobs.value.value?.rows
  if (!all) return null
  if (range.value === 'month' || range.value === 'day') return isEarlier.value ? (earlier.value.value?.rows ?? null) : []
  const tomorrow = dayAfter(today.value, 1)
  const days = { today: [today.value, today.value], tomorrow: [tomorrow, tomorrow], week: weekOf(today.value) }[range.value]
  return jobsOn(all, { from: days[0]!, to: days[1]!, today: today.value }, dayOf)
})
const next = computed(() => {
  const isToDo = rows.value?.some((row) => row.visitState !== 'ended')
  return range.value === 'today' && !isToDo ? nextDay(jobs.value.value?.rows ?? [], today.value, dayOf) : []
})
const numbers = computed(() => new Map(jobs.value.value?.rows.map((row) => [row.visitId, row.number])))

/** Who leaves with something unsent is told first; it stays on the phone, sealed, until they sign in here again. */
const leaving = ref(false)
async function leave(sure = false): Promise<void> {
  if (!sure && carrying.acts.length) {
    await carrying.flush()
    leaving.value = carrying.acts.length > 0
    if (leaving.value) return
  }
  await leaveDevice(() => session.leave().catch(() => session.forget()))
  live.close()
  await router.push({ name: 'signIn' })
}
const RANGES = [
  { value: 'today', label: 'Today' },
  { value: 'tomorrow', label: 'Tomorrow' },
  { value: 'week', label: 'This week' },
  { value: 'month', label: 'Last month' },
  { value: 'day', label: 'A day' },
] as const
</script>

<template>
  <PhonePage>
    <header class="top">
      <h1>Rounds</h1>
      <span>{{ session.self?.name }}</span><RouterLink to="/rounds/steps">My steps</RouterLink><RouterLink to="/rounds/time">My time</RouterLink
      ><RouterLink to="/readiness">Readiness</RouterLink><NButton @click="leave()">Sign out</NButton>
    </header>
    <SignalLine />
    <main>
      <section v-if="leaving" class="card" aria-label="Sign out" role="alert">
        <h2>Not everything is sent</h2>
        <p>
          {{ carrying.acts.length === 1 ? 'One thing you did is' : `${carrying.acts.length} things you did are` }} on this phone alone. Sign out, and they stay
          here unreadable until you sign in on this phone again.
        </p>
        <NButton type="primary" @click="leaving = false">Stay signed in</NButton>
        <NButton @click="leave(true)">Sign out all the same</NButton>
      </section>
      <UnsentCard folded :number-of="(visitId) => numbers.get(visitId)" />
      <NButton class="spot" @click="router.push('/rounds/spot')">On the spot: scan, report, start</NButton>
      <ChoiceEntry id="range" v-model="range" apart label-hidden label="Which days" :options="RANGES" />
      <MomentEntryLater v-if="range === 'day'" id="day" v-model="day" label="Which day" day />
      <p v-if="range === 'today' && !carrying.away" class="paper">
        <NButton text type="primary" tag="a" target="_blank" :href="address(printMyDay, {})">Today on paper</NButton>
      </p>
      <ProblemNote v-if="isEarlier && earlier.problem.value" :problem="earlier.problem.value" @retry="earlier.load" />
      <ProblemNote v-else-if="jobs.problem.value && !jobs.value.value" :problem="jobs.problem.value" @retry="jobs.load" />
      <template v-else-if="rows">
        <JobList v-if="rows.length" :jobs="rows" :news-for="newsFor" />
        <div v-else-if="range !== 'day' || day" class="card">
          <h2>{{ range === 'today' ? 'Nothing planned today' : 'Nothing planned' }}</h2>
          <p>Jobs the desk sends you appear here by themselves, and in your mail.</p>
        </div>
        <section v-if="next[0]" class="next" aria-label="Next">
          <h2>Next, on {{ writtenDay(toLocalField(new Date(next[0].plannedStart))) }}</h2>
          <JobList :jobs="next" :news-for="newsFor" />
        </section>
      </template>
      <div v-else class="bones wait" />
      <TellHere />
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
