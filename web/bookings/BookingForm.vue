<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, ref, watch } from 'vue'
import { bookEquipment, checkBooking, moveBooking } from '#contract/bookings'
import type { Booking } from '#contract/bookings'
import { call, CallProblem, freshKey, fromLocalField, MomentEntry, PickField, toLocalField, useFirstField, useSoon } from '#web/kit'
import { useLineAct } from '#web/sheets'
import { equipmentChoices } from '#web/stock'

/** A booking of equipment, or another time for one: what is in the way is shown before it is done. */
const props = defineProps<{ orderId: number; from: string; until: string; equipment?: { id: number; called: string }; booking?: Booking }>()
const emit = defineEmits<{ leave: []; done: [] }>()
const piece = ref(props.booking?.equipmentId ?? props.equipment?.id ?? null)
const called = computed(() => (props.booking ? `${props.booking.tag} ${props.booking.name}` : (props.equipment?.called ?? '')))
const from = ref(toLocalField(new Date(props.booking?.from ?? props.from)))
const until = ref(toLocalField(new Date(props.booking?.until ?? props.until)))
const isOut = computed(() => props.booking?.state === 'out')
const inTheWay = ref<string[]>([])
const key = ref(freshKey())
const { act, at, busy } = useLineAct<Booking>(() => emit('done'))
const form = ref<HTMLElement | null>(null)
useFirstField(form)
const asked = computed(() =>
  piece.value === null || !from.value || !until.value
    ? null
    : { equipmentId: piece.value, from: fromLocalField(from.value).toISOString(), until: fromLocalField(until.value).toISOString() },
)
const look = useSoon(async () => {
  const now = asked.value
  if (!now) return void (inTheWay.value = [])
  const { sentences } = await call(checkBooking, { ...now, ...(props.booking ? { bookingId: props.booking.id } : {}) }).catch((error: unknown) => {
    if (!(error instanceof CallProblem)) throw error
    return { sentences: [] }
  })
  if (asked.value === now) inTheWay.value = sentences
}, 150)
watch(
  asked,
  () => {
    key.value = freshKey()
    void look()
  },
  { immediate: true },
)
async function send(): Promise<void> {
  const now = asked.value
  if (!now) return
  const { booking } = props
  if (booking)
    await act(
      () => call(moveBooking, { id: booking.id, version: booking.version, from: now.from, until: now.until }),
      `${booking.name} is booked for another time.`,
    )
  else await act(() => call(bookEquipment, { orderId: props.orderId, ...now }, { key: key.value }), 'Booked.')
}
</script>

<template>
  <form ref="form" class="form" aria-label="Book equipment" @submit.prevent="send" @keydown.ctrl.enter.prevent="send" @keydown.esc.stop="emit('leave')">
    <div class="row">
      <PickField
        v-if="!booking"
        id="booking-piece"
        label="Equipment"
        :value="piece"
        :current="equipment ? { value: equipment.id, label: called } : null"
        :find="equipmentChoices"
        :problem="at('equipmentId')"
        @pick="piece = $event === null ? null : Number($event)"
      />
      <p v-else class="called">{{ called }}</p>
      <MomentEntry v-if="!isOut" id="booking-from" v-model="from" label="From" :problem="at('from')" required />
      <MomentEntry id="booking-until" v-model="until" label="Until" :problem="at('until')" required />
    </div>
    <ul v-if="inTheWay.length" class="problem" role="status" aria-label="In the way">
      <li v-for="sentence in inTheWay" :key="sentence">{{ sentence }}</li>
    </ul>
    <p v-else-if="asked" class="soft" role="status">It is free then.</p>
    <div class="row">
      <NButton type="primary" attr-type="submit" :disabled="busy || !asked || inTheWay.length > 0">{{ booking ? 'Book it for then' : 'Book it' }}</NButton>
      <NButton @click="emit('leave')">Leave it</NButton>
    </div>
  </form>
</template>

<style scoped src="../stock/form.css"></style>
<style scoped>
.called {
  align-self: end;
  margin: 0 0 8px;
}
ul {
  margin: 0;
  padding-left: 18px;
}
</style>
