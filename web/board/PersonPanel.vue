<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, onMounted, ref } from 'vue'
import type { Board } from '#contract/board'
import { printDay } from '#contract/jobsheets'
import { addLeave, dropLeave, readCrew } from '#contract/people'
import { address, call, CallProblem, daysBetween, ListEntry, MomentEntry, rowsNamed, TextEntry, toLocalField, useSession, useUndo, writtenDay } from '#web/kit'
import { stretchOf } from './holding'
import type { Holding } from './holding'
import PersonSays from './PersonSays.vue'

/** Somebody before more is given to them: their week, where they are, what they may and know; and their day given to somebody else. */
const props = defineProps<{ board: Board; siteId: number; technicianId: number; holding: Holding }>()
const emit = defineEmits<{ leave: []; changed: [] }>()
const session = useSession()
const undo = useUndo()
const panel = ref<HTMLElement | null>(null)
// The keyboard goes along: it comes back to where it was when this is left.
onMounted(() => panel.value?.focus({ preventScroll: true }))
const person = computed(() => props.holding.personOf(props.technicianId))
const days = computed(() => daysBetween(props.board.first, props.board.last).map((value) => ({ value, label: writtenDay(value) })))
const day = ref<string | null>(props.board.first)
const to = ref<number | null>(null)
const wrong = ref('')
const others = computed(() => rowsNamed(props.board.people.filter(({ id }) => id !== props.technicianId)))
const theirs = computed(() =>
  (person.value?.visits ?? []).filter(({ state, from }) => state === 'planned' && toLocalField(new Date(from)).startsWith(day.value ?? '-')),
)

const from = ref(props.board.first)
const until = ref(props.board.first)
const why = ref('')
const awayWrong = ref('')
const saving = ref(false)
/** Sick in the morning, say: what is planned then stays, is marked, and can be given to somebody else. */
async function beAway(): Promise<void> {
  const id = person.value?.personId
  if (!id || saving.value) return
  if (!from.value || !until.value) return void (awayWrong.value = 'Say from which day until which.')
  saving.value = true
  awayWrong.value = ''
  try {
    const before = new Set((await call(readCrew, { id })).leaves.map((leave) => leave.id))
    const sheet = await call(addLeave, { id, from: from.value, until: until.value, ...(why.value.trim() ? { reason: why.value.trim() } : {}) })
    const made = sheet.leaves.find((leave) => !before.has(leave.id))
    undo.say(`${person.value?.name} is away.`, made && (() => call(dropLeave, { id, itemId: made.id })))
    why.value = ''
    emit('changed')
  } catch (error) {
    awayWrong.value = error instanceof CallProblem ? (error.reasons[0]?.sentence ?? error.message) : 'It could not be saved. Try again.'
  } finally {
    saving.value = false
  }
}

/** Everything planned of a day goes to somebody else at the times it was planned for. */
function give(): void {
  wrong.value = to.value ? (theirs.value.length ? '' : 'Nothing that could be given away is planned for that day.') : 'Choose who takes it over.'
  if (wrong.value) return
  const changes = theirs.value.map((visit) => ({ visitId: visit.id, version: visit.version, technicianId: to.value!, start: visit.from, end: visit.until }))
  const conflicts = theirs.value.flatMap((visit) =>
    props.holding.judge(visit, to.value, stretchOf(visit)).map((one) => ({ ...one, sentence: `${visit.number}: ${one.sentence}` })),
  )
  void props.holding.send(
    { changes },
    `${changes.length === 1 ? 'One visit' : `${changes.length} visits`} of ${person.value?.name} given to ${props.holding.personOf(to.value)?.name}.`,
    conflicts,
  )
}
</script>

<template>
  <section ref="panel" class="panel" tabindex="-1" :aria-label="person?.name ?? 'Somebody'" @keydown.esc.stop="emit('leave')">
    <header>
      <h2>{{ person?.name }}</h2>
      <NButton size="small" aria-label="Close this" @click="emit('leave')">×</NButton>
    </header>
    <PersonSays :site-id="siteId" :technician-id="technicianId" :day="board.first" />
    <p>
      <NButton size="small" tag="a" target="_blank" :href="address(printDay, { technicianId, day: board.first })"
        >Print {{ days.length > 1 ? `their ${writtenDay(board.first)}` : 'their day' }}</NButton
      >
    </p>
    <form v-if="session.can('registers.edit')" aria-label="Away" @submit.prevent="beAway">
      <h3>Away</h3>
      <div class="when">
        <MomentEntry id="away-from" v-model="from" label="From" day />
        <MomentEntry id="away-until" v-model="until" label="Until" day />
      </div>
      <TextEntry id="away-why" v-model="why" label="Why" :max="120" hint="Not shown on the Board." />
      <p v-if="awayWrong" class="wrong" role="alert">{{ awayWrong }}</p>
      <NButton attr-type="submit" :loading="saving">Not here then</NButton>
    </form>
    <form aria-label="Give a day to somebody else" @submit.prevent="give">
      <h3>Give a whole day to somebody else</h3>
      <ListEntry v-if="days.length > 1" id="give-day" v-model="day" label="Day" :options="days" />
      <ListEntry id="give-to" v-model="to" label="To" :options="others" />
      <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
      <NButton attr-type="submit" :loading="holding.busy.value">Give {{ theirs.length === 1 ? 'one visit' : `${theirs.length} visits` }}</NButton>
    </form>
  </section>
</template>

<style scoped src="./panel.css"></style>
