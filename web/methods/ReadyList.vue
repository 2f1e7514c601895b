<script setup lang="ts">
import { computed } from 'vue'
import { readOrderBookings } from '#contract/bookings'
import type { OrderPlan } from '#contract/methods'
import type { OrderSheet } from '#contract/orders'
import { readOrderParts } from '#contract/stock'
import { readyLines } from '#core/methods'
import { jumpTo, useRead } from '#web/kit'
import { ReasonList } from '#web/sheets'

/** What stands between the order and its dispatch; each line leads to its cure. */
const props = defineProps<{ sheet: OrderSheet; plan: OrderPlan }>()
const parts = useRead(readOrderParts, () => ({ orderId: props.sheet.id }), {
  holds: true,
  touchedBy: ({ orderId, kind }) => orderId === props.sheet.id || kind.startsWith('stock.'),
})
const booked = useRead(readOrderBookings, () => ({ orderId: props.sheet.id }), {
  holds: true,
  touchedBy: ({ orderId, kind }) => orderId === props.sheet.id || kind.startsWith('booking.'),
})
const lines = computed(() => {
  const rows = (parts.value.value?.rows ?? []).map((part) => ({ ...part, free: String(part.stores.reduce((sum, store) => sum + Number(store.free), 0)) }))
  return readyLines(
    props.sheet.facts,
    rows,
    props.plan.hazards,
    (booked.value.value?.wanted ?? []).map(({ name }) => name),
  )
})
</script>

<template>
  <div v-if="parts.value.value && booked.value.value" class="ready" role="group" aria-label="Ready to go">
    <p v-if="!lines.length">Nothing stands between it and dispatch.</p>
    <template v-else>
      <p class="soft">Between it and dispatch:</p>
      <ReasonList missing :reasons="lines" @jump="jumpTo" />
    </template>
  </div>
</template>

<style scoped>
.ready {
  margin-bottom: 10px;
}
.ready p {
  margin: 0 0 4px;
}
</style>
