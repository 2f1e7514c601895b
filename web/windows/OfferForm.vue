<script setup lang="ts">
import { Plus, X } from '@lucide/vue'
import { NButton } from 'naive-ui/es/button'
import { computed, ref, watch } from 'vue'
import { offerTimes } from '#contract/windows'
import type { OfferedTime, OrderWindows } from '#contract/windows'
import { MOST_TIMES } from '#core/windows'
import { call, freshKey, fromLocalField, MomentEntry, NumberEntry, SuggestEntry, TextEntry, toLocalField, useFirstField } from '#web/kit'
import { useLineAct } from '#web/sheets'

/** Times to choose from, for whoever lets people in: begun with those of the next days, changed as needed. */
const props = defineProps<{ orderId: number; windows: OrderWindows }>()
const emit = defineEmits<{ leave: []; done: [] }>()
let rows = 0
const HOUR_MS = 3_600_000
interface Row {
  id: number
  from: string
  hours: number | null
}
const rowOf = ({ from, until }: OfferedTime): Row => ({
  id: ++rows,
  from: toLocalField(new Date(from)),
  hours: (new Date(until).getTime() - new Date(from).getTime()) / HOUR_MS,
})
const times = ref(props.windows.proposed.map(rowOf))
const name = ref(props.windows.whom[0]?.name ?? '')
const email = ref(props.windows.whom[0]?.email ?? '')
const note = ref('')
const key = freshKey()
const form = ref<HTMLElement | null>(null)
useFirstField(form)
const { act, at, busy, first } = useLineAct<OrderWindows>(() => emit('done'))

const replaces = computed(() => props.windows.offers.find(({ state }) => state === 'open'))
const whole = computed(() => times.value.length > 0 && times.value.every((time) => time.from && time.hours) && !!name.value.trim() && !!email.value.trim())
/** The same length as the last, a day later: what the next is likely to be. */
function add(): void {
  const last = times.value.at(-1)
  const day = last?.from ? new Date(`${last.from}:00Z`) : null
  day?.setUTCDate(day.getUTCDate() + 1)
  times.value.push({ id: ++rows, from: day?.toISOString().slice(0, 16) ?? '', hours: last?.hours ?? 2 })
}
function timeOf({ from, hours }: Row): { from: string; until: string } {
  const start = fromLocalField(from)
  return { from: start.toISOString(), until: new Date(start.getTime() + (hours ?? 0) * HOUR_MS).toISOString() }
}
const drop = (id: number) => (times.value = times.value.filter((time) => time.id !== id))
const people = computed(() => props.windows.whom.map((one) => one.email))
watch(email, (address) => {
  const known = props.windows.whom.find((one) => one.email === address)
  if (known) name.value = known.name
})
const send = () =>
  whole.value &&
  act(
    () =>
      call(
        offerTimes,
        {
          orderId: props.orderId,
          name: name.value.trim(),
          email: email.value.trim(),
          times: times.value.map(timeOf),
          note: note.value.trim(),
        },
        { key },
      ),
    `The times are offered to ${name.value.trim()}.`,
  )
</script>

<template>
  <form ref="form" class="form" aria-label="Offer times" @submit.prevent="send" @keydown.ctrl.enter.prevent="send" @keydown.esc.stop="emit('leave')">
    <div v-for="(time, index) in times" :key="time.id" class="row time" role="group" :aria-label="`Time ${index + 1}`">
      <MomentEntry :id="`time-${time.id}-from`" v-model="time.from" :label="`Time ${index + 1}`" :problem="at(`times.${index}`)" required />
      <NumberEntry :id="`time-${time.id}-hours`" v-model="time.hours" label="Hours" :least="0.5" :most="24" :step="0.5" :decimals="1" />
      <NButton quaternary :aria-label="`Leave out time ${index + 1}`" class="drop" @click="drop(time.id)"><X :size="16" /></NButton>
    </div>
    <p v-if="times.length < MOST_TIMES">
      <NButton size="small" quaternary @click="add"><Plus :size="14" aria-hidden="true" /> Another time</NButton>
    </p>
    <div class="row whom">
      <SuggestEntry id="offer-email" v-model="email" label="Mail address" :offers="people" :problem="at('email')" :max="190" />
      <TextEntry id="offer-name" v-model="name" label="Name" :max="120" :problem="at('name')" required />
    </div>
    <TextEntry id="offer-note" v-model="note" label="A line for them, if you like" :max="300" :problem="at('note')" />
    <p v-if="replaces" class="soft">What was offered to {{ replaces.name }} before is taken back.</p>
    <p v-if="first" class="problem" role="alert">{{ first }}</p>
    <div class="row">
      <NButton type="primary" attr-type="submit" :disabled="busy || !whole">Send the times</NButton>
      <NButton @click="emit('leave')">Leave it</NButton>
    </div>
  </form>
</template>

<style scoped src="../stock/form.css"></style>
<style scoped>
.time {
  display: grid;
  grid-template-columns: minmax(200px, 300px) 110px auto;
  justify-content: start;
}
.drop {
  align-self: end;
}
.whom > * {
  flex: 1 1 200px;
}
.form p {
  margin: 0;
}
</style>
