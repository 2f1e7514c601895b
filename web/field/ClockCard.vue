<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, reactive, ref, watch } from 'vue'
import { isForgotten } from '#core/field'
import { STINT_KIND_NAMES, STINT_KINDS } from '#core/ledger'
import type { StintKind } from '#core/ledger'
import { fromLocalField, longTime, TextEntry, spell, timeIn, toLocalField, useNow } from '#web/kit'
import type { CallProblem } from '#web/kit'

/** The clock of a visit: one press starts it, another goes on as another kind of time. */
interface Correction {
  stintId: number
  startAt: string
  endAt: string
  reason: string
}
const props = defineProps<{
  running: { kind: StintKind; startAt: string } | null
  stints: { id: number; kind: StintKind; minutes: number | null; startAt?: string; endAt?: string | null }[]
  over: boolean
  busy: boolean
  /** Whoever’s time it is puts it right themselves, on the same day. */
  corrects?: boolean
  problem?: CallProblem | null
}>()
const emit = defineEmits<{ switch: [StintKind]; stop: [stoppedAt?: string]; correct: [Correction] }>()
const now = useNow()
const since = computed(() => (props.running ? spell((now.value - new Date(props.running.startAt).getTime()) / 60_000) : ''))
/** A clock that ran through the night was forgotten: it is stopped where its person says. */
const forgotten = computed(() => props.running !== null && isForgotten(new Date(props.running.startAt), new Date(now.value)))
const stopped = ref('')
const wrong = ref('')
function stopThen(): void {
  const typed = timeIn(stopped.value)
  wrong.value = typed ? '' : 'Write a time like 16:30.'
  if (!typed) return
  const start = new Date(props.running!.startAt)
  const [day] = toLocalField(start).split('T')
  const at = fromLocalField(`${day}T${typed}`)
  // A time before it began is of the day after.
  emit('stop', (at < start ? new Date(at.getTime() + 86_400_000) : at).toISOString())
}
/** Of today, newest last: what may still be put right, once the server knows of it. */
const today = computed(() => toLocalField(new Date(now.value)).slice(0, 10))
const mine = computed(() =>
  props.corrects
    ? props.stints.flatMap(({ startAt, endAt, ...one }) =>
        one.id > 0 && startAt && endAt && toLocalField(new Date(endAt)).startsWith(today.value) ? [{ ...one, startAt, endAt }] : [],
      )
    : [],
)
const righting = ref<number | null>(null)
const said = reactive({ startAt: '', endAt: '', reason: '' })
const clockOf = (at: string) => toLocalField(new Date(at)).slice(11)
function right(one: { id: number; startAt: string; endAt: string }): void {
  righting.value = one.id
  Object.assign(said, { startAt: clockOf(one.startAt), endAt: clockOf(one.endAt), reason: '' })
}
/** Once that time is another, the form is done; what else comes in meanwhile leaves it as it is typed. */
watch(
  () => mine.value.filter(({ id }) => id === righting.value).map(({ startAt, endAt }) => `${startAt} ${endAt}`)[0],
  (_, before) => before && (righting.value = null),
)
const wrongTime = ref('')
function correct(): void {
  const [start, end] = [timeIn(said.startAt), timeIn(said.endAt)]
  wrongTime.value = start && end ? '' : 'Write times like 16:30.'
  const one = mine.value.find(({ id }) => id === righting.value)
  if (!start || !end || !one) return
  // By the day on which it ended; what begins later on the clock than it ends began the day before.
  const day = toLocalField(new Date(one.endAt)).slice(0, 10)
  // What is left as it is keeps its seconds: cut off, it would lie over the time before it.
  const endAt = end === clockOf(one.endAt) ? new Date(one.endAt) : fromLocalField(`${day}T${end}`)
  const begun = fromLocalField(`${day}T${start}`)
  const wasOvernight = !toLocalField(new Date(one.startAt)).startsWith(day)
  const typed = wasOvernight && begun > endAt ? new Date(begun.getTime() - 86_400_000) : begun
  const startAt = start === clockOf(one.startAt) ? new Date(one.startAt) : typed
  emit('correct', { stintId: one.id, startAt: startAt.toISOString(), endAt: endAt.toISOString(), reason: said.reason })
}
const logged = computed(() =>
  STINT_KINDS.map((kind) => ({ kind, minutes: props.stints.filter((one) => one.kind === kind).reduce((sum, one) => sum + (one.minutes ?? 0), 0) })).filter(
    (one) => one.minutes,
  ),
)
</script>

<template>
  <section class="card" aria-label="Clock">
    <h2>Clock</h2>
    <p v-if="running" class="run" role="status">{{ STINT_KIND_NAMES[running.kind] }}, {{ since }}</p>
    <p v-else class="label">{{ over ? 'You have left this job.' : 'The clock is not running.' }}</p>
    <form v-if="forgotten" class="kinds" @submit.prevent="stopThen">
      <TextEntry
        id="clock-stopped"
        v-model="stopped"
        :label="`It has run since ${longTime(running!.startAt)}. When did you stop?`"
        mono
        :problem="wrong"
        class="stop"
        inputmode="numeric"
        placeholder="16:30"
      />
      <NButton type="primary" class="stop" attr-type="submit" :disabled="busy">Stop it there</NButton>
    </form>
    <div v-else-if="!over" class="kinds">
      <NButton
        v-for="kind in STINT_KINDS"
        :key="kind"
        :type="!running && kind === 'work' ? 'primary' : 'default'"
        :class="{ on: running?.kind === kind }"
        :aria-pressed="running?.kind === kind"
        :disabled="busy"
        @click="emit('switch', kind)"
      >
        {{ STINT_KIND_NAMES[kind] }}
      </NButton>
      <NButton v-if="running" class="stop" :disabled="busy" @click="emit('stop')">Stop the clock</NButton>
    </div>
    <p v-if="logged.length" class="label">{{ logged.map((one) => `${STINT_KIND_NAMES[one.kind]} ${spell(one.minutes)}`).join(', ') }}</p>
    <ul v-if="mine.length" class="things">
      <li v-for="one in mine" :key="one.id">
        <form v-if="righting === one.id" :aria-label="`Put right: ${STINT_KIND_NAMES[one.kind]}`" @submit.prevent="correct">
          <p>{{ STINT_KIND_NAMES[one.kind] }}, as it really was</p>
          <div class="times">
            <TextEntry id="right-start" v-model="said.startAt" label="From" mono inputmode="numeric" :problem="problem?.at('startAt')" />
            <TextEntry id="right-end" v-model="said.endAt" label="To" mono inputmode="numeric" :problem="problem?.at('endAt')" />
          </div>
          <TextEntry id="right-why" v-model="said.reason" label="Why" :max="200" :problem="problem?.at('reason')" />
          <p v-if="wrongTime" class="problem" role="alert">{{ wrongTime }}</p>
          <div class="kinds">
            <NButton type="primary" attr-type="submit" :disabled="busy || !said.reason.trim()">Put it right</NButton>
            <NButton @click="righting = null">Leave it</NButton>
          </div>
        </form>
        <template v-else>
          <span
            >{{ STINT_KIND_NAMES[one.kind] }} <span class="mono">{{ clockOf(one.startAt) }} to {{ clockOf(one.endAt) }}</span></span
          >
          <NButton size="small" :aria-label="`Put right ${STINT_KIND_NAMES[one.kind]} ${clockOf(one.startAt)} to ${clockOf(one.endAt)}`" @click="right(one)"
            >Put right</NButton
          >
        </template>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.run {
  font-size: 20px;
}
.kinds {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}
.on {
  background: var(--shoal);
  border-color: var(--tide);
  font-weight: 700;
}
ul.things {
  margin-top: 8px;
  border-top: 1px solid var(--line);
}
.times {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}
.stop {
  grid-column: 1 / -1;
}
</style>
