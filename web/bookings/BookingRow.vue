<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, ref } from 'vue'
import { RouterLink } from 'vue-router'
import { cancelBooking, giveBack, handOut } from '#contract/bookings'
import type { Booking } from '#contract/bookings'
import { BOOKING_STATE_NAMES } from '#core/bookings'
import { call, RecordLink, shortTime, TextEntry, useFirstField } from '#web/kit'
import { useLineAct } from '#web/sheets'
import BookingForm from './BookingForm.vue'

/** One booking: for what and when, who has it, and what is done with it next. */
const props = defineProps<{ booking: Booking; mayBook: boolean; mayHandOut: boolean; ofEquipment?: boolean; who?: string | null }>()
const emit = defineEmits<{ changed: [] }>()
const doing = ref<'move' | 'out' | 'back' | null>(null)
const to = ref('')
const note = ref('')
const { act, at, busy, first } = useLineAct<Booking>(() => {
  doing.value = null
  emit('changed')
})
const open = computed(() => ['booked', 'out'].includes(props.booking.state))
const as = () => ({ id: props.booking.id, version: props.booking.version })
const form = ref<HTMLElement | null>(null)
useFirstField(form)
function begin(what: 'move' | 'out' | 'back'): void {
  if (what === 'out') to.value = props.who ?? ''
  doing.value = what
}
const give = () => act(() => call(handOut, { ...as(), to: to.value.trim() }), `${props.booking.name} is with ${to.value.trim()}.`)
const take = () => act(() => call(giveBack, { ...as(), note: note.value.trim() }), `${props.booking.name} is back.`)
const drop = () => act(() => call(cancelBooking, as()), 'The booking is given up.')
</script>

<template>
  <li class="booking">
    <div class="line">
      <RecordLink v-if="!ofEquipment" :record="{ register: 'equipment', id: booking.equipmentId }">{{ booking.name }}</RecordLink>
      <RouterLink v-else class="mono" :to="`/desk/planning/order/${booking.order.id}`">{{ booking.order.number }}</RouterLink>
      <span v-if="ofEquipment">{{ booking.order.summary }}</span>
      <span class="mono">{{ shortTime(booking.from) }} – {{ shortTime(booking.until) }}</span>
      <span :class="{ problem: booking.late, soft: !open }">
        {{ booking.has ? `with ${booking.has}` : BOOKING_STATE_NAMES[booking.state] }}{{ booking.late ? ', should be back' : '' }}
      </span>
      <span v-if="booking.note" class="soft">{{ booking.note }}</span>
      <span v-if="open" class="acts">
        <NButton v-if="mayHandOut && booking.state === 'booked'" size="tiny" :aria-label="`Hand out ${booking.name}`" @click="begin('out')">Hand out</NButton>
        <NButton v-if="mayHandOut && booking.state === 'out'" size="tiny" :aria-label="`Take back ${booking.name}`" @click="begin('back')">Take back</NButton>
        <NButton v-if="mayBook" size="tiny" quaternary :aria-label="`Another time for ${booking.name}`" @click="begin('move')">Another time</NButton>
        <NButton v-if="mayBook && booking.state === 'booked'" size="tiny" quaternary :aria-label="`Give up ${booking.name}`" :disabled="busy" @click="drop"
          >Give up</NButton
        >
      </span>
    </div>
    <BookingForm
      v-if="doing === 'move'"
      :order-id="booking.order.id"
      :from="booking.from"
      :until="booking.until"
      :booking="booking"
      @leave="doing = null"
      @done="((doing = null), emit('changed'))"
    />
    <form v-else-if="doing" ref="form" class="form" @submit.prevent="doing === 'out' ? give() : take()" @keydown.esc.stop="doing = null">
      <TextEntry v-if="doing === 'out'" id="booking-to" v-model="to" label="Who takes it" :max="120" :problem="at('to')" />
      <TextEntry v-else id="booking-note" v-model="note" label="In what state it came back, if worth saying" :max="300" :problem="at('note')" />
      <div class="row">
        <NButton type="primary" attr-type="submit" :disabled="busy || (doing === 'out' && !to.trim())">{{
          doing === 'out' ? 'Hand it out' : 'It is back'
        }}</NButton>
        <NButton @click="doing = null">Leave it</NButton>
      </div>
    </form>
    <p v-if="first" class="problem" role="alert">{{ first }}</p>
  </li>
</template>

<style scoped src="../stock/form.css"></style>
<style scoped>
.booking {
  padding: 4px 0;
  border-bottom: 1px solid var(--line);
  list-style: none;
}
.line {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  align-items: baseline;
}
.acts {
  margin-left: auto;
}
p {
  margin: 4px 0 0;
}
</style>
