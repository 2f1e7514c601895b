<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, ref } from 'vue'
import { RouterLink, useRoute } from 'vue-router'
import { cancelPurchase, editPurchase, orderPurchase, readPurchase, readPurchasePdf } from '#contract/stock'
import type { Purchase } from '#contract/stock'
import { PURCHASE_STATE_NAMES, toCome } from '#core/stock'
import { address, call, LoadedPart, MomentEntry, RecordLink, shortTime, TextEntry, useRead, writtenAs, writtenDay } from '#web/kit'
import { useLineAct } from '#web/sheets'
import PurchaseForm from './PurchaseForm.vue'
import ReceiptForm from './ReceiptForm.vue'
import PurchaseBillForm from './PurchaseBillForm.vue'
import StockHead from './StockHead.vue'

/** One purchase: what is asked for, ordered, received and billed, and what is done with it next. */
const route = useRoute()
const id = computed(() => Number(route.params.id))
const read = useRead(readPurchase, () => ({ id: id.value }), { touchedBy: ({ kind }) => kind.startsWith('stock.'), holds: true })
const it = computed(() => read.value.value!)
const doing = ref<'edit' | 'receive' | 'bill' | 'cancel' | null>(null)
const reason = ref('')
const { act, at, busy } = useLineAct<Purchase>(done)
function done(): void {
  doing.value = null
  void read.load()
}
const as = () => ({ id: it.value.id, version: it.value.version })
const order = () => act(() => call(orderPurchase, as()), `${it.value.number} is ordered; ${it.value.vendor} is sent it by mail.`)
const callOff = () => act(() => call(cancelPurchase, { ...as(), reason: reason.value.trim() }), `What had not come of ${it.value.number} is called off.`)
function expect(day: string): void {
  if (day !== (it.value.expectedOn ?? '')) void act(() => call(editPurchase, { ...as(), expectedOn: day || null }), 'Kept.')
}
const money = (minor: number | null) => (minor === null ? '–' : writtenAs('money', minor))
const much = (decimal: string) => writtenAs('quantity', decimal)
const open = computed(() => it.value.state === 'asked' || it.value.state === 'ordered')
const came = computed(() => it.value.receipts.length > 0)
</script>

<template>
  <div class="page">
    <StockHead />
    <LoadedPart :part="read">
      <section :aria-label="`Purchase ${it.number}`">
        <div class="head">
          <h2>
            <span class="mono">{{ it.number }}</span> {{ it.vendor ?? 'No vendor yet' }}
          </h2>
          <span class="state">{{ it.billed ? 'Billed' : PURCHASE_STATE_NAMES[it.state] }}</span>
          <a :href="address(readPurchasePdf, { id: it.id })">As a PDF</a>
        </div>
        <dl class="facts">
          <div>
            <dt>Delivered to</dt>
            <dd>{{ it.store }}</dd>
          </div>
          <div>
            <dt>Asked for</dt>
            <dd>{{ it.askedBy }}, {{ shortTime(it.askedAt) }}</dd>
          </div>
          <div v-if="it.orderedAt">
            <dt>Ordered</dt>
            <dd>{{ it.orderedBy }}, {{ shortTime(it.orderedAt) }}</dd>
          </div>
          <div v-if="!open || !it.mayEdit">
            <dt>Expected</dt>
            <dd>{{ it.expectedOn ? writtenDay(it.expectedOn) : '–' }}</dd>
          </div>
          <div v-if="it.note">
            <dt>Note for the vendor</dt>
            <dd>{{ it.note }}</dd>
          </div>
          <div v-if="it.bill">
            <dt>Bill</dt>
            <dd>
              <span class="mono">{{ it.bill.number }}</span> of {{ writtenDay(it.bill.on) }}, <span class="violet mono">{{ money(it.bill.amountMinor) }}</span>
            </dd>
          </div>
        </dl>
        <p v-if="it.bill?.difference" class="problem">{{ it.bill.difference }}</p>
        <MomentEntry
          v-if="open && it.mayEdit"
          id="purchase-expected"
          class="day"
          day
          label="Expected on"
          :model-value="it.expectedOn ?? ''"
          @update:model-value="expect"
        />
        <PurchaseForm v-if="doing === 'edit'" :purchase="it" @leave="doing = null" @made="done" />
        <div v-else class="scroll">
          <table class="plain-table" aria-label="What is bought">
            <thead>
              <tr>
                <th>Part</th>
                <th>For</th>
                <th class="amount">Quantity</th>
                <th class="amount">Received</th>
                <th class="amount">Price of one</th>
                <th class="amount">Last price</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="line in it.lines" :key="line.id">
                <td>
                  <RecordLink :record="{ register: 'parts', id: line.partId }">{{ line.name }}</RecordLink> <span class="mono soft">{{ line.code }}</span>
                </td>
                <td>
                  <RouterLink v-if="line.order" class="mono" :to="`/desk/planning/order/${line.order.id}`">{{ line.order.number }}</RouterLink><span
                    v-else
                    class="soft"
                    >stock</span
                  >
                </td>
                <td class="amount mono">{{ much(line.quantity) }} {{ line.unit }}</td>
                <td class="amount mono">
                  {{ much(line.received) }}<span v-if="it.state === 'ordered' && toCome(line) !== '0'" class="soft">, {{ much(toCome(line)) }} to come</span>
                </td>
                <td class="amount mono violet">{{ money(line.priceMinor) }}</td>
                <td class="amount mono">{{ money(line.lastPriceMinor) }}</td>
              </tr>
            </tbody>
            <tfoot>
              <tr>
                <td colspan="4">Comes to, without tax</td>
                <td class="amount mono violet">
                  <strong>{{ money(it.totalMinor) }}</strong>
                </td>
                <td></td>
              </tr>
            </tfoot>
          </table>
        </div>
        <ReceiptForm v-if="doing === 'receive'" :purchase="it" @leave="doing = null" @done="done" />
        <PurchaseBillForm v-if="doing === 'bill'" :purchase="it" @leave="doing = null" @done="done" />
        <form v-if="doing === 'cancel'" class="form" aria-label="Call off" @submit.prevent="callOff" @keydown.esc.stop="doing = null">
          <TextEntry id="purchase-reason" v-model="reason" label="Why what has not come is called off" :max="200" :problem="at('reason')" />
          <div class="row">
            <NButton type="primary" attr-type="submit" :disabled="busy || !reason.trim()">Call off</NButton>
            <NButton @click="doing = null">Leave it</NButton>
          </div>
        </form>
        <div v-if="!doing" class="row">
          <NButton v-if="it.state === 'asked' && it.mayEdit" type="primary" :disabled="busy" @click="order">Order it</NButton>
          <NButton v-if="it.state === 'ordered' && it.mayEdit" type="primary" @click="doing = 'receive'">Receive</NButton>
          <NButton v-if="it.mayBill && came && !it.billed" :type="it.state === 'received' ? 'primary' : 'default'" @click="doing = 'bill'"
            >Enter the bill</NButton
          >
          <NButton v-if="it.state === 'asked' && it.mayEdit" @click="doing = 'edit'">Change</NButton>
          <NButton v-if="open && it.mayEdit" @click="((doing = 'cancel'), (reason = ''))">Call off</NButton>
        </div>
        <p v-for="field in ['vendorId', 'lines']" v-show="at(field)" :key="field" class="problem" role="alert">{{ at(field) }}</p>
      </section>
      <section v-if="came" aria-label="Received">
        <h2>Received</h2>
        <table class="plain-table">
          <tbody>
            <tr v-for="(receipt, index) in it.receipts" :key="index">
              <td class="mono">{{ shortTime(receipt.at) }}</td>
              <td>{{ it.lines.find((line) => line.id === receipt.lineId)?.name }}</td>
              <td class="amount mono">{{ much(receipt.quantity) }}</td>
              <td class="amount mono violet">{{ money(receipt.priceMinor) }}</td>
              <td>{{ receipt.by }}</td>
            </tr>
          </tbody>
        </table>
      </section>
    </LoadedPart>
  </div>
</template>

<style scoped src="../kit/page.css"></style>
<style scoped src="./form.css"></style>
<style scoped>
.head {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
  align-items: baseline;
}
.state {
  background: var(--shoal);
  border-radius: 6px;
  padding: 2px 8px;
}
.facts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 32px;
  margin: 0;
}
.facts dt {
  font-size: 12px;
  color: var(--ink-soft);
}
.facts dd {
  margin: 0;
}
.day {
  max-width: 240px;
}
.scroll {
  overflow-x: auto;
}
tfoot td {
  border-top: 1px solid var(--line);
}
</style>
