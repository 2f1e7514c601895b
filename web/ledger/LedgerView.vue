<script setup lang="ts">
import { ref } from 'vue'
import { RouterLink } from 'vue-router'
import { listPayables, listStatements } from '#contract/ledger'
import { formatMinor } from '#core/kit'
import { ListEntry, ProblemNote, shortTime, useRead } from '#web/kit'
import type { Touched } from '#web/kit'

const month = ref<string | undefined>(undefined)
const charged: Touched<unknown> = ({ kind }) => ['order.post', 'order.reverse', 'vendor.bill'].includes(kind)
const statements = useRead(listStatements, () => ({ month: month.value }), { holds: true, touchedBy: charged })
const payables = useRead(listPayables, {}, { touchedBy: charged })
</script>

<template>
  <div class="page">
    <ProblemNote v-if="statements.problem.value" :problem="statements.problem.value" @retry="statements.load" />
    <template v-else-if="statements.value.value">
      <header>
        <h1>Ledger</h1>
        <ListEntry
          id="month"
          class="month"
          label="Period"
          :model-value="statements.value.value.month"
          :options="statements.value.value.months.map((one) => ({ value: one.month, label: `${one.month}${one.closedAt ? ', closed' : ', open'}` }))"
          @update:model-value="$event && (month = $event)"
        />
      </header>
      <section aria-label="Statements">
        <h2>Statements</h2>
        <table v-if="statements.value.value.rows.length" class="plain-table">
          <thead>
            <tr>
              <th>Statement</th>
              <th>Payer</th>
              <th class="amount">Jobs</th>
              <th class="amount">Net</th>
              <th class="amount">Tax</th>
              <th class="amount">Total</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="row in statements.value.value.rows" :key="row.number">
              <td>
                <RouterLink class="mono" :to="`/ledger/${row.payerId}/${row.month}`">{{ row.number }}</RouterLink>
              </td>
              <td>{{ row.payerName }}<span v-if="row.ownCost" class="soft"> own cost, not charged on</span></td>
              <td class="amount">{{ row.jobs }}</td>
              <td class="amount">{{ formatMinor(row.netMinor) }}</td>
              <td class="amount">{{ formatMinor(row.taxMinor) }}</td>
              <td class="amount violet">{{ formatMinor(row.grossMinor) }}</td>
            </tr>
          </tbody>
        </table>
        <p v-else class="soft">Nothing was charged in this period. Orders are posted from the Charges station.</p>
      </section>
      <section aria-label="Payables">
        <h2>What vendors are owed</h2>
        <table v-if="payables.value.value?.rows.length" class="plain-table">
          <thead>
            <tr>
              <th>Vendor</th>
              <th>Order</th>
              <th>Posted</th>
              <th class="amount">Net</th>
              <th class="amount">Tax</th>
              <th class="amount">Owed</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="row in payables.value.value.rows" :key="row.id">
              <td>{{ row.vendor }}</td>
              <td>
                <RouterLink class="mono" :to="`/desk/charges/order/${row.orderId}`">{{ row.orderNumber }}</RouterLink>
              </td>
              <td class="mono">{{ shortTime(row.postedAt) }}</td>
              <td class="amount">{{ formatMinor(row.netMinor) }}</td>
              <td class="amount">{{ formatMinor(row.taxMinor) }}</td>
              <td class="amount violet">{{ formatMinor(row.netMinor + row.taxMinor) }}</td>
            </tr>
          </tbody>
        </table>
        <p v-else class="soft">Nothing is owed.</p>
      </section>
    </template>
    <div v-else class="bones wait" />
  </div>
</template>

<style scoped src="../kit/page.css"></style>
