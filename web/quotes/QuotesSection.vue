<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, ref } from 'vue'
import type { OrderFields, OrderSheet } from '#contract/orders'
import { readQuotes, takeQuote, withdrawQuote } from '#contract/quotes'
import type { OrderQuotes, QuoteRow } from '#contract/quotes'
import { formatMinor } from '#core/kit'
import { QUOTE_STATE_NAMES } from '#core/quotes'
import { call, dayOf, LoadedPart, shortTime, useRead } from '#web/kit'
import { useLineAct, useOpenSheet } from '#web/sheets'
import AskForm from './AskForm.vue'

/** Several vendors asked for a price, their answers beside each other, one of them taken. */
const { sheet: it, reload } = useOpenSheet<OrderSheet, OrderFields>()
const read = useRead(readQuotes, () => ({ orderId: it.value.id }), {
  holds: true,
  touchedBy: ({ orderId, kind }) => orderId === it.value.id && (kind.startsWith('quote.') || kind.startsWith('order.')),
})
const asking = ref(false)
const rows = computed(() => read.value.value?.rows.filter(({ state }) => state !== 'withdrawn') ?? [])
const { act, busy } = useLineAct<OrderQuotes>((now) => void (read.value.value = now))
const take = async (row: QuoteRow) =>
  (await act(() => call(takeQuote, { id: row.id, version: row.version }), `The price of ${row.vendor} is taken; it is named on the order.`)) && reload()
const withdraw = (row: QuoteRow) => act(() => call(withdrawQuote, { id: row.id, version: row.version }), `${row.vendor} need not answer any more.`)
const mayTake = (row: QuoteRow) => read.value.value?.mayAsk && row.netMinor !== null && !row.lapsed && (row.state === 'priced' || row.state === 'passed_over')

function stateSays(row: QuoteRow): string {
  if (row.state === 'asked') return row.late ? `no answer, due ${shortTime(row.dueAt)}` : `asked, due ${shortTime(row.dueAt)}`
  if (row.state === 'priced' && row.lapsed) return 'does not stand any more'
  return QUOTE_STATE_NAMES[row.state].toLowerCase()
}
const priceSays = (row: QuoteRow) => (row.aboveMinor === null ? '' : row.lowest ? 'the lowest' : row.lapsed ? '' : `+${formatMinor(row.aboveMinor)}`)
function done(now: OrderQuotes): void {
  read.value.value = now
  asking.value = false
}
</script>

<template>
  <LoadedPart :part="read">
    <div v-if="rows.length" class="scroll">
      <table class="plain-table">
        <thead>
          <tr>
            <th>Vendor</th>
            <th class="number">Before tax</th>
            <th>Could begin</th>
            <th>Stands until</th>
            <th>State</th>
            <th aria-label="What can be done"></th>
          </tr>
        </thead>
        <tbody>
          <template v-for="row in rows" :key="row.id">
            <tr :class="{ taken: row.state === 'taken' }">
              <td>{{ row.vendor }}</td>
              <td class="number mono">
                {{ row.netMinor === null ? '–' : formatMinor(row.netMinor) }}
                <span class="soft above">{{ priceSays(row) }}</span>
              </td>
              <td class="mono">{{ row.earliestAt ? shortTime(row.earliestAt) : '–' }}</td>
              <td class="mono">{{ row.validUntil ? dayOf(row.validUntil) : '–' }}</td>
              <td :class="{ wrong: row.late || row.lapsed }">{{ stateSays(row) }}</td>
              <td class="acts">
                <NButton
                  v-if="mayTake(row)"
                  size="small"
                  :type="row.lowest && row.state === 'priced' ? 'primary' : 'default'"
                  :disabled="busy"
                  @click="take(row)"
                  >Take it</NButton
                >
                <NButton v-if="read.value.value!.mayAsk && row.state === 'asked'" size="small" quaternary :disabled="busy" @click="withdraw(row)"
                  >Not needed</NButton
                >
              </td>
            </tr>
            <tr v-if="row.answer">
              <td colspan="6" class="said">“{{ row.answer }}”</td>
            </tr>
          </template>
        </tbody>
      </table>
    </div>
    <p v-else-if="!asking" class="none">
      <span class="soft">No vendor was asked for a price.</span>
      <NButton v-if="read.value.value!.mayAsk" size="small" quaternary @click="asking = true">Ask for prices</NButton>
    </p>
    <p v-if="rows.length && read.value.value!.mayAsk && !asking" class="none"><NButton size="small" quaternary @click="asking = true">Ask others</NButton></p>
    <AskForm v-if="asking" :order-id="it.id" :proposed="read.value.value!.proposed" @leave="asking = false" @done="done" />
  </LoadedPart>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
}
.number {
  text-align: right;
}
.above {
  display: block;
  font-size: 12px;
}
.taken {
  background: var(--shoal);
}
.said {
  color: var(--ink-soft);
  border-top: 0;
}
.wrong {
  color: var(--buoy);
}
.acts {
  white-space: nowrap;
  text-align: right;
}
.none {
  display: flex;
  gap: 10px;
  align-items: baseline;
  margin: 0;
}
</style>
