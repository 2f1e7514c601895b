<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { ref } from 'vue'
import { readOrderParts, reservePart } from '#contract/stock'
import type { OrderPart } from '#contract/stock'
import { call, LoadedPart, RecordLink, useRead, writtenAs } from '#web/kit'
import { useLineAct } from '#web/sheets'
import StockForm from './StockForm.vue'

/** The parts of an order: what is planned, kept and taken, and where more of it lies. */
const props = defineProps<{ orderId: number; orderNumber: string }>()
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
.acts {
  white-space: nowrap;
}
td p {
  margin: 0;
}
</style>
