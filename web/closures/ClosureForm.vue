<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { NCheckbox } from 'naive-ui/es/checkbox'
import { computed, ref, watch } from 'vue'
import { checkSpace, closeSpace, moveClosure } from '#contract/closures'
import type { Closure, OrderClosures, SpaceBookings } from '#contract/closures'
import { counted } from '#core/kit'
import {
  call,
  CallProblem,
  freshKey,
  fromLocalField,
  MomentEntry,
  PickField,
  placeChoices,
  TextEntry,
  toLocalField,
  useFirstField,
  useSession,
  useSoon,
} from '#web/kit'
import type { Choice } from '#web/kit'
import { useLineAct } from '#web/sheets'
import AffectedList from './AffectedList.vue'

/** A space taken out of use for a while, or another time for it: what is booked in it is shown before it is done. */
const props = defineProps<{ orderId: number; closures: OrderClosures; summary: string; closure?: Closure }>()
const emit = defineEmits<{ leave: []; done: [OrderClosures] }>()
const session = useSession()
const start = props.closure?.place ?? props.closures.place
const space = ref(start?.id ?? null)
const shown = ref<Choice | null>(start && { value: start.id, label: `${start.code} ${start.name}` })
const from = ref(toLocalField(new Date(props.closure?.from ?? props.closures.proposed.from)))
const until = ref(toLocalField(new Date(props.closure?.until ?? props.closures.proposed.until)))
const runs = props.closure?.standing === 'running'
const reason = ref(props.closure?.reason ?? '')
const says = ref(false)
const title = ref('')
const words = ref('')
const found = ref<(SpaceBookings & { of: string }) | null>(null)
const wrong = ref('')
let key = freshKey()
const form = ref<HTMLElement | null>(null)
useFirstField(form)
const { act, at, busy, first } = useLineAct<OrderClosures>((now) => emit('done', now))

const asked = computed(() =>
  space.value === null || !from.value || !until.value
    ? null
    : { placeId: space.value, from: fromLocalField(from.value).toISOString(), until: fromLocalField(until.value).toISOString() },
)
const look = useSoon(async () => {
  const now = asked.value
  if (!now || now.until <= now.from) return void (found.value = null)
  try {
    const said = await call(checkSpace, now)
    if (asked.value === now) found.value = { ...said, of: JSON.stringify(now) }
  } catch (error) {
    if (!(error instanceof CallProblem)) throw error
    if (asked.value === now) wrong.value = error.message
  }
}, 200)
watch(
  asked,
  () => {
    key = freshKey()
    wrong.value = ''
    found.value = null
    look()
  },
  { immediate: true },
)
const isLooked = computed(() => found.value?.of === JSON.stringify(asked.value))
const bookings = computed(() => (isLooked.value ? found.value!.bookings : []))
const total = computed(() => (isLooked.value ? found.value!.total : 0))
const label = computed(() => {
  const over = total.value ? ` over ${counted(total.value, 'booking')}` : ''
  return props.closure ? `Keep it out of use until then${over}` : `Take it out of use${over}`
})
function offerNotice(on: boolean): void {
  says.value = on
  if (on && !title.value) {
    title.value = `${shown.value?.label.replace(/^\S+ /, '') ?? 'A room'} is out of use`.slice(0, 140)
    words.value = reason.value
  }
}
async function pick(id: number | null): Promise<void> {
  space.value = id
  shown.value = null
}
async function send(): Promise<void> {
  const now = asked.value
  if (!now || !isLooked.value) return
  const seen = bookings.value.map((one) => one.key)
  const { closure } = props
  const done = closure
    ? await act(() => call(moveClosure, { id: closure.id, version: closure.version, from: now.from, until: now.until, seen }), 'It is out of use until then.')
    : await act(
        () =>
          call(
            closeSpace,
            {
              orderId: props.orderId,
              ...now,
              reason: reason.value.trim(),
              seen,
              ...(says.value ? { notice: { title: title.value.trim(), body: words.value.trim() } } : {}),
            },
            { key },
          ),
        'It is out of use then.',
      )
  // Somebody may have booked it meanwhile: what falls into it is shown as it is now.
  if (!done) {
    key = freshKey()
    look()
  }
}
</script>

<template>
  <form
    ref="form"
    class="form"
    :aria-label="closure ? 'Another time' : 'Take a space out of use'"
    @submit.prevent="send"
    @keydown.ctrl.enter.prevent="send"
    @keydown.esc.stop="emit('leave')"
  >
    <div v-if="!closure" class="row">
      <PickField
        id="closure-space"
        label="Space"
        :value="space"
        :current="shown"
        :find="(text) => placeChoices(text, 'space')"
        :problem="at('placeId')"
        @pick="pick($event === null ? null : Number($event))"
      />
    </div>
    <div class="row period">
      <MomentEntry v-if="!runs" id="closure-from" v-model="from" label="From" :problem="at('from')" required />
      <MomentEntry id="closure-until" v-model="until" label="Until" :problem="at('until')" required />
    </div>
    <TextEntry v-if="!closure" id="closure-reason" v-model="reason" label="Why" :max="200" :problem="at('reason')" required />
    <div role="status" aria-label="What is booked">
      <p v-if="wrong" class="problem">{{ wrong }}</p>
      <p v-else-if="asked && !isLooked" class="soft">Asking the bookings system…</p>
      <template v-else-if="bookings.length">
        <p class="problem">{{ counted(total, 'booking') }} {{ total === 1 ? 'falls' : 'fall' }} into it:</p>
        <AffectedList :bookings="bookings" />
        <p v-if="total > bookings.length" class="soft">The first {{ bookings.length }} of them are shown.</p>
      </template>
      <p v-else-if="found?.said === 'bookings'" class="soft">Nothing is booked in it then.</p>
      <p v-else-if="found?.said === 'unknown'" class="soft">The bookings system does not know this space: nobody books it there.</p>
      <p v-else-if="found?.said === 'silent'" class="problem">
        The bookings system does not answer. It is told as soon as it does, and you hear of what is booked by then.
      </p>
    </div>
    <template v-if="!closure && session.can('help.edit')">
      <NCheckbox :checked="says" @update:checked="offerNotice">Tell occupants at the Counter</NCheckbox>
      <template v-if="says">
        <TextEntry id="closure-title" v-model="title" label="What it says" :max="140" required />
        <TextEntry id="closure-words" v-model="words" label="And below it" long :max="2000" />
      </template>
    </template>
    <p v-if="first" class="problem" role="alert">{{ first }}</p>
    <div class="row">
      <NButton type="primary" attr-type="submit" :disabled="busy || !isLooked || (!closure && !reason.trim()) || (says && !title.trim())">{{ label }}</NButton>
      <NButton @click="emit('leave')">Leave it</NButton>
    </div>
  </form>
</template>

<style scoped src="../stock/form.css"></style>
<style scoped>
.period > * {
  flex: 1 1 236px;
}
.form p {
  margin: 0;
}
</style>
