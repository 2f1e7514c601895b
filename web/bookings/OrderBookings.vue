<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { ref } from 'vue'
import { readOrderBookings } from '#contract/bookings'
import { LoadedPart, RecordLink, useRead } from '#web/kit'
import BookingForm from './BookingForm.vue'
import BookingRow from './BookingRow.vue'

/** Equipment that is lent to the order: what is booked, what is planned and not booked, and who has it. */
const props = defineProps<{ orderId: number; who?: string | null }>()
const read = useRead(readOrderBookings, () => ({ orderId: props.orderId }), {
  holds: true,
  touchedBy: ({ orderId, kind }) => orderId === props.orderId || kind.startsWith('booking.'),
})
const booking = ref<{ id: number; called: string } | 'other' | null>(null)
function done(): void {
  booking.value = null
  void read.load()
}
</script>

<template>
  <LoadedPart :part="read">
    <div id="s-equipment" class="equipment" role="group" aria-label="Equipment">
      <h3 v-if="read.value.value!.rows.length || read.value.value!.wanted.length">Equipment</h3>
      <ul v-if="read.value.value!.rows.length || read.value.value!.wanted.length">
        <BookingRow
          v-for="row in read.value.value!.rows"
          :key="`${row.id}-${row.version}`"
          :booking="row"
          :may-book="read.value.value!.mayBook"
          :may-hand-out="read.value.value!.mayHandOut"
          :who="who"
          @changed="read.load"
        />
        <li v-for="piece in read.value.value!.wanted" :key="piece.equipmentId" class="wanted">
          <RecordLink :record="{ register: 'equipment', id: piece.equipmentId }">{{ piece.name }}</RecordLink>
          <span class="problem">planned, not booked</span>
          <NButton
            v-if="read.value.value!.mayBook"
            size="tiny"
            :aria-label="`Book ${piece.name}`"
            @click="booking = { id: piece.equipmentId, called: `${piece.tag} ${piece.name}` }"
            >Book</NButton
          >
        </li>
      </ul>
      <BookingForm
        v-if="booking"
        :key="booking === 'other' ? 'other' : booking.id"
        :order-id="orderId"
        :from="read.value.value!.proposed.from"
        :until="read.value.value!.proposed.until"
        :equipment="booking === 'other' ? undefined : booking"
        @leave="booking = null"
        @done="done"
      />
      <p v-else-if="read.value.value!.mayBook"><NButton size="small" quaternary @click="booking = 'other'">Book equipment</NButton></p>
    </div>
  </LoadedPart>
</template>

<style scoped>
.equipment {
  margin-top: 12px;
}
ul {
  margin: 0;
  padding: 0;
}
.wanted {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  align-items: baseline;
  padding: 4px 0;
  list-style: none;
}
.equipment p {
  margin: 4px 0 0;
}
</style>
