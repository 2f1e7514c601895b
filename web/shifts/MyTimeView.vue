<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { ref } from 'vue'
import { RouterLink } from 'vue-router'
import { askLeave, readMyTime, withdrawLeave } from '#contract/shifts'
import type { MyLeaveAsk, MyTime } from '#contract/shifts'
import { WEEKDAYS } from '#core/people'
import { LEAVE_ASK_NAMES } from '#core/shifts'
import { endMyDevice, listMyDevices } from '#contract/devices'
import { DeviceList } from '#web/devices'
import { MyFeed } from '#web/feeds'
import {
  call,
  CallProblem,
  dayOf,
  freshKey,
  MomentEntry,
  onLiveChange,
  PhonePage,
  ProblemNote,
  spanTime,
  TextEntry,
  useFormDraft,
  useLoading,
  useSoon,
} from '#web/kit'

/** A technician’s own time: leave asked for and agreed, when they are on call, their week, and their calendar. */
const time = useLoading(() => call(readMyTime, {}))
void time.load()
onLiveChange(useSoon(time.load, 500))
const { form, drop } = useFormDraft('ask-leave', { from: '', until: '', reason: '' })
const problem = ref<CallProblem | null>(null)
const busy = ref(false)
let key = freshKey()
async function act(run: () => Promise<MyTime>): Promise<boolean> {
  busy.value = true
  problem.value = null
  try {
    time.value.value = await run()
    return true
  } catch (error) {
    if (!(error instanceof CallProblem)) throw error
    problem.value = error
    return false
  } finally {
    key = freshKey()
    busy.value = false
  }
}
const at = (field: string) => problem.value?.at(field)
const missing = ref('')
async function ask(): Promise<void> {
  missing.value = form.from ? '' : 'Say from which day on.'
  if (missing.value) return
  const until = form.until || form.from
  if (await act(() => call(askLeave, { from: form.from, until, reason: form.reason.trim() }, { key }))) drop()
}
const span = ({ from, until }: MyLeaveAsk) => (from === until ? dayOf(from) : `${dayOf(from)} to ${dayOf(until)}`)
</script>

<template>
  <PhonePage>
    <header class="top">
      <h1>My time</h1>
      <RouterLink to="/rounds">Rounds</RouterLink>
    </header>
    <main>
      <ProblemNote v-if="time.problem.value && !time.value.value" :problem="time.problem.value" @retry="time.load" />
      <template v-else-if="time.value.value">
        <section class="card" aria-label="Leave">
          <h2>Leave</h2>
          <p v-for="one in time.value.value.leaves" :key="one.from">
            <strong>{{ spanTime(one.from, one.until) }}</strong><span v-if="one.reason" class="label">, {{ one.reason }}</span>
          </p>
          <p v-if="!time.value.value.leaves.length" class="label">None is agreed.</p>
          <p v-for="one in time.value.value.asks.filter(({ state }) => state !== 'withdrawn').slice(0, 6)" :key="one.id" class="asked">
            <span
              >{{ span(one) }}: {{ LEAVE_ASK_NAMES[one.state].toLowerCase() }}<template v-if="one.decidedBy"> by {{ one.decidedBy }}</template
              ><span v-if="one.answer" class="label">, “{{ one.answer }}”</span></span
            >
            <NButton
              v-if="one.state === 'asked'"
              size="small"
              :disabled="busy"
              :aria-label="`Take back the leave from ${dayOf(one.from)}`"
              @click="act(() => call(withdrawLeave, { id: one.id, version: one.version }, { key }))"
              >Take back</NButton
            >
          </p>
          <form aria-label="Ask for leave" @submit.prevent="ask">
            <h3>Ask for leave</h3>
            <MomentEntry id="ask-from" v-model="form.from" day label="From" :problem="missing || at('from')" required />
            <MomentEntry id="ask-until" v-model="form.until" day label="Through" :problem="at('until')" hint="The same day where nothing is said." />
            <TextEntry id="ask-reason" v-model="form.reason" label="What for, if you like" :max="120" :problem="at('reason')" />
            <p v-if="problem?.apart" class="problem" role="alert">{{ problem.apart }}</p>
            <NButton type="primary" attr-type="submit" :disabled="busy">Ask the desk</NButton>
          </form>
        </section>
        <section v-if="time.value.value.onCall.length" class="card" aria-label="On call">
          <h2>On call</h2>
          <p v-for="one in time.value.value.onCall" :key="one.from">
            {{ spanTime(one.from, one.until) }} <span class="label">{{ one.team }}</span>
          </p>
        </section>
        <section class="card" aria-label="My week">
          <h2>My week</h2>
          <dl>
            <template v-for="(day, index) in WEEKDAYS" :key="day">
              <dt>{{ day }}</dt>
              <dd class="mono">{{ time.value.value.week[index] || 'off' }}</dd>
            </template>
            <template v-for="one in time.value.value.otherwise" :key="one.day">
              <dt>{{ dayOf(one.day) }}</dt>
              <dd>
                <span class="mono">{{ one.stretches || 'off' }}</span><span v-if="one.reason" class="label">, {{ one.reason }}</span>
              </dd>
            </template>
          </dl>
        </section>
        <MyFeed />
        <section class="card" aria-label="My devices">
          <h2>Devices with my jobs on them</h2>
          <DeviceList :read="() => call(listMyDevices, {})" :end="(id) => call(endMyDevice, { id })" />
        </section>
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
dl {
  display: grid;
  grid-template-columns: 130px 1fr;
  gap: 4px 12px;
  margin: 0;
}
dd {
  margin: 0;
}
.asked {
  display: flex;
  justify-content: space-between;
  gap: 10px;
  align-items: center;
}
form {
  display: grid;
  gap: 10px;
  margin-top: 8px;
}
h3 {
  margin: 6px 0 0;
  font-size: 15px;
}
.wait {
  height: 160px;
}
</style>
