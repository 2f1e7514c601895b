<script setup lang="ts">
import { listBookingsOf } from '#contract/bookings'
import type { AnyRecord } from '#contract/portraits'
import { BookingRow } from '#web/bookings'
import { LoadedPart, useRead, useSession } from '#web/kit'
import { useOpenSheet } from '#web/sheets'

/** Where a piece of equipment is, who has it, and what it is and was booked for. */
const { sheet: it } = useOpenSheet<AnyRecord>()
const session = useSession()
const read = useRead(listBookingsOf, () => ({ id: it.value.id }), { holds: true, touchedBy: ({ kind }) => kind.startsWith('booking.') })
const out = () => read.value.value!.rows.find(({ state }) => state === 'out')
</script>

<template>
  <LoadedPart :part="read">
    <p v-if="out()">
      <strong>With {{ out()!.has }}</strong> for <span class="mono">{{ out()!.order.number }}</span><span v-if="out()!.late" class="problem"
        >, and should be back</span
      >.
    </p>
    <p v-else>It is in its place{{ it.names.placeId ? `, ${it.names.placeId}` : '' }}.</p>
    <ul v-if="read.value.value!.rows.length" aria-label="Bookings">
      <BookingRow
        v-for="row in read.value.value!.rows"
        :key="`${row.id}-${row.version}`"
        :booking="row"
        of-equipment
        :may-book="session.can('orders.edit')"
        :may-hand-out="read.value.value!.mayHandOut"
        @changed="read.load"
      />
    </ul>
    <p v-else class="soft">It was never booked. It is booked on the Sheet of the order that needs it, under “Steps and needs”.</p>
  </LoadedPart>
</template>

<style scoped>
ul {
  margin: 0;
  padding: 0;
}
</style>
