<script setup lang="ts">
import { computed } from 'vue'
import { readOrderBookings } from '#contract/bookings'
import { readOrderClosures, readSpaceFree } from '#contract/closures'
import type { OrderPlan } from '#contract/methods'
import type { OrderSheet } from '#contract/orders'
import { readAssetSays } from '#contract/places'
import { readOrderParts } from '#contract/stock'
import { readOrderWindows } from '#contract/windows'
import { readyLines } from '#core/methods'
import { jumpTo, spanTime, useRead, writtenDay } from '#web/kit'
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
/** Somebody may owe the repair: told while it is not they who would be sent. */
const says = useRead(readAssetSays, () => (props.sheet.asset ? { id: props.sheet.asset.id } : null), { holds: true })
const warranty = computed(() => {
  const it = props.sheet.asset ? says.value.value : null
  return it?.underWarrantyUntil && it.vendor && it.vendor.id !== props.sheet.vendorId
    ? { asset: it.label, vendor: it.vendor.label, until: writtenDay(it.underWarrantyUntil) }
    : null
})
const ofOrder = (kinds: string) => ({
  holds: true as const,
  touchedBy: ({ orderId, kind }: { orderId?: number | null; kind: string }) => orderId === props.sheet.id && kind.startsWith(kinds),
})
const windows = useRead(readOrderWindows, () => ({ orderId: props.sheet.id }), ofOrder('window.'))
const offered = computed(() => {
  const last = windows.value.value?.offers[0]
  if (!last || (last.state !== 'open' && last.state !== 'none_fits')) return null
  return { name: last.name, state: last.state === 'none_fits' ? ('none_fits' as const) : last.passed ? ('passed' as const) : ('waits' as const) }
})
const closures = useRead(readOrderClosures, () => ({ orderId: props.sheet.id }), ofOrder('closure.'))
/** Asked of the bookings system once it is known when somebody will be there; the list does not wait for it. */
const space = useRead(
  readSpaceFree,
  () => (props.sheet.place && (props.sheet.window || props.sheet.visits.some(({ state }) => state === 'planned')) ? { orderId: props.sheet.id } : null),
  { holds: true, touchedBy: ({ orderId, kind }) => orderId === props.sheet.id && /^(closure|window|order)\./.test(kind) },
)
const lines = computed(() => {
  const rows = (parts.value.value?.rows ?? []).map((part) => ({ ...part, free: String(part.stores.reduce((sum, store) => sum + Number(store.free), 0)) }))
  return readyLines(props.sheet.facts, rows, props.plan.hazards, {
    unbooked: (booked.value.value?.wanted ?? []).map(({ name }) => name),
    warranty: warranty.value,
    agreed: props.sheet.window !== null,
    offered: offered.value,
    booked: (space.value.value?.bookings ?? []).map(({ what, who, from, until }) =>
      [what ? `“${what}”` : null, who, spanTime(from, until)].filter(Boolean).join(', '),
    ),
    untold: (closures.value.value?.rows ?? [])
      .filter(({ standing, told, problem }) => (standing === 'ahead' || standing === 'running') && told === 'waiting' && problem !== null)
      .map(({ place }) => `${place.code} ${place.name}`),
  })
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
