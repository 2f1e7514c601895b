<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, ref } from 'vue'
import { holdOrder } from '#contract/orders'
import { askForOrder, readOrderParts, reservePart } from '#contract/stock'
import type { OrderPart } from '#contract/stock'
import { call, LoadedPart, RecordLink, useRead, writtenAs, writtenDay } from '#web/kit'
import { useLineAct } from '#web/sheets'
import StockForm from './StockForm.vue'

/** The parts of an order: what is planned, kept and taken, and where more of it lies. */
const props = defineProps<{ orderId: number; orderNumber: string; version: number }>()
const read = useRead(readOrderParts, () => ({ orderId: props.orderId }), {
  holds: true,
  touchedBy: ({ orderId, kind }) => orderId === props.orderId || kind.startsWith('stock.'),
})
const { act, busy } = useLineAct<unknown>(() => void read.load())
const moving = ref<{ partId: number; act: 'issue' | 'return'; storeId: number; store: string } | null>(null)
const number = (decimal: string) => writtenAs('quantity', decimal)
const missing = (part: OrderPart) => Math.max(0, Number(part.planned) - Number(part.reserved) - Number(part.issued))
/** The store that has all of what is missing, else the most of it. */
const bestStore = (part: OrderPart) => [...part.stores].sort((a, b) => Number(b.free) - Number(a.free))[0] ?? null
function says(part: OrderPart): string {
  const lacks = missing(part)
  if (!lacks) return ''
  const all = part.stores.reduce((sum, store) => sum + Number(store.free), 0)
  return all >= lacks ? '' : `${number(String(Math.round((lacks - Math.max(0, all)) * 1000) / 1000))} ${part.unit} are not in stock`
}
function keep(part: OrderPart): void {
  const store = bestStore(part)
  if (!store) return
  const more = Math.min(missing(part), Number(store.free))
  const quantity = String(Math.round((Number(store.reserved) + more) * 1000) / 1000)
  void act(() => call(reservePart, { orderId: props.orderId, partId: part.partId, storeId: store.storeId, quantity }), `Reserved in ${store.store}.`)
}
const canKeep = (part: OrderPart) => {
  const store = bestStore(part)
  return missing(part) > 0 && store !== null && Number(store.free) > 0
}
/** What is neither in the stores nor coming for this order. */
function lacking(part: OrderPart): number {
  const free = part.stores.reduce((sum, store) => sum + Math.max(0, Number(store.free)), 0)
  const coming = part.coming.filter(({ forThis }) => forThis).reduce((sum, one) => sum + Number(one.quantity), 0)
  return Math.round((missing(part) - free - coming) * 1000) / 1000
}
const buy = (part: OrderPart) =>
  act(() => call(askForOrder, { orderId: props.orderId, partId: part.partId, quantity: String(lacking(part)) }), 'Asked for. It stands under Stock, Purchases.')
/** Every part that is not there, by name. */
const awaited = computed(() => (read.value.value?.rows ?? []).filter((part) => says(part)))
const wait = () =>
  act(
    () =>
      call(holdOrder, {
        id: props.orderId,
        version: props.version,
        holdReason: 'part',
        reason: awaited.value.map((part) => `${number(String(missing(part)))} ${part.unit} ${part.name}`).join(', '),
      }),
    'It waits, and goes on by itself when they come.',
  )
async function release(part: OrderPart): Promise<void> {
  for (const { storeId, reserved } of part.stores)
    if (Number(reserved))
      await act(() => call(reservePart, { orderId: props.orderId, partId: part.partId, storeId, quantity: '0' }), 'Released: it is free for others again.')
}
function begin(part: OrderPart, what: 'issue' | 'return'): void {
  const store = part.stores.find(({ reserved }) => Number(reserved) > 0) ?? bestStore(part)
  if (store) moving.value = { partId: part.partId, act: what, storeId: store.storeId, store: store.store }
}
</script>

<template>
  <LoadedPart :part="read">
    <div v-if="read.value.value!.rows.length" id="s-parts" class="scroll">
      <table class="plain-table" aria-label="Parts of the order">
        <thead>
          <tr>
            <th>Part</th>
            <th class="amount">Planned</th>
            <th class="amount">Reserved</th>
            <th class="amount">Issued</th>
            <th>Free in</th>
            <th></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="part in read.value.value!.rows" :key="part.partId">
            <td>
              <RecordLink :record="{ register: 'parts', id: part.partId }">{{ part.name }}</RecordLink> <span class="mono soft">{{ part.code }}</span>
              <p v-if="says(part)" class="problem">{{ says(part) }}</p>
              <p v-for="one in part.coming" :key="one.purchaseId" class="soft">
                {{ number(one.quantity) }} {{ one.state === 'ordered' ? 'ordered' : 'asked for' }}{{ one.forThis ? ' for it' : '' }},
                <RouterLink class="mono" :to="`/stock/purchases/${one.purchaseId}`">{{ one.number }}</RouterLink>{{
                  one.expectedOn ? `, expected ${writtenDay(one.expectedOn)}` : ''
                }}
              </p>
            </td>
            <td class="amount mono">{{ number(part.planned) }} {{ part.unit }}</td>
            <td class="amount mono">{{ number(part.reserved) }}</td>
            <td class="amount mono">{{ number(part.issued) }}</td>
            <td>
              <span v-for="store in part.stores" :key="store.storeId" class="store"
                >{{ store.store }} <span class="mono">{{ number(store.free) }}</span></span
              >
            </td>
            <td class="acts">
              <NButton
                v-if="read.value.value!.mayReserve && canKeep(part)"
                size="tiny"
                :aria-label="`Reserve ${part.name}`"
                :disabled="busy"
                @click="keep(part)"
                >Reserve</NButton
              >
              <NButton v-if="read.value.value!.mayReserve && lacking(part) > 0" size="tiny" :aria-label="`Buy ${part.name}`" :disabled="busy" @click="buy(part)"
                >Buy {{ number(String(lacking(part))) }}</NButton
              >
              <NButton
                v-if="read.value.value!.mayReserve && Number(part.reserved)"
                size="tiny"
                quaternary
                :aria-label="`Release ${part.name}`"
                :disabled="busy"
                @click="release(part)"
                >Release</NButton
              >
              <NButton
                v-if="read.value.value!.mayMove && part.stores.length"
                size="tiny"
                quaternary
                :aria-label="`Issue ${part.name}`"
                @click="begin(part, 'issue')"
                >Issue</NButton
              >
              <NButton
                v-if="read.value.value!.mayMove && Number(part.issued) > 0"
                size="tiny"
                quaternary
                :aria-label="`Return ${part.name}`"
                @click="begin(part, 'return')"
                >Return</NButton
              >
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <p v-if="awaited.length && read.value.value!.mayWait" class="wait-for">
      <NButton size="small" :disabled="busy" @click="wait">Wait for {{ awaited.map((part) => part.name).join(', ') }}</NButton>
      <span class="soft">It goes on hold, and goes on by itself when they come.</span>
    </p>
    <StockForm
      v-if="moving"
      :key="`${moving.partId}-${moving.act}`"
      :part-id="moving.partId"
      :act="moving.act"
      :store-id="moving.storeId"
      :store-name="moving.store"
      :order-number="orderNumber"
      @leave="moving = null"
      @moved="((moving = null), read.load())"
    />
  </LoadedPart>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
  margin-top: 12px;
}
.store {
  margin-right: 10px;
  white-space: nowrap;
}
.wait-for {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  align-items: center;
  margin: 8px 0 0;
}
.acts {
  white-space: nowrap;
}
td p {
  margin: 0;
}
</style>
