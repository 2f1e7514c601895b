<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, ref } from 'vue'
import { RouterLink } from 'vue-router'
import { readPortraitMovements } from '#contract/portraits'
import type { AnyRecord } from '#contract/portraits'
import { MOVEMENT_NAMES } from '#core/stock'
import { dayOf, LoadedPart, useRead, writtenAs } from '#web/kit'
import { useOpenSheet } from '#web/sheets'
import { StockForm } from '#web/stock'

/** How much lies where, and what came and went last. */
const { sheet: it } = useOpenSheet<AnyRecord>()
const read = useRead(readPortraitMovements, () => ({ register: it.value.register, id: it.value.id }), {
  holds: true,
  touchedBy: ({ orderId, kind }) => orderId !== null || kind.startsWith('stock.'),
})
const ofPart = computed(() => it.value.register === 'parts')
const moving = ref(false)
/** What need not be chosen: the record that is open, and the store where there is one alone. */
const known = computed(() => {
  if (!ofPart.value) return { storeId: it.value.id, storeName: it.value.heading }
  const levels = read.value.value!.levels
  return { partId: it.value.id, ...(levels.length === 1 ? { storeId: levels[0]!.storeId, storeName: levels[0]!.store } : {}) }
})
const number = (value: string) => writtenAs('quantity', String(Number(value)))
</script>

<template>
  <LoadedPart :part="read">
    <p v-if="!read.value.value!.levels.length" class="soft">{{ ofPart ? 'It lies in no store.' : 'Nothing lies in it.' }}</p>
    <table v-else class="plain-table levels" aria-label="In stock">
      <thead>
        <tr>
          <th>{{ ofPart ? 'Store' : 'Part' }}</th>
          <th class="amount">On hand</th>
          <th class="amount">Reserved</th>
          <th class="amount">Free</th>
          <th class="amount">On order</th>
          <th class="amount">Average price</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="level in read.value.value!.levels" :key="`${level.partId}-${level.storeId}`">
          <td>{{ ofPart ? level.store : level.part }}</td>
          <td class="amount mono">{{ number(level.onHand) }} {{ level.unit }}</td>
          <td class="amount mono">{{ number(level.reserved) }}</td>
          <td class="amount mono">
            <strong>{{ number(level.free) }}</strong>
          </td>
          <td class="amount mono">{{ number(level.onOrder) }}</td>
          <td class="amount mono money">{{ writtenAs('money', level.averageCostMinor) }}</td>
        </tr>
      </tbody>
    </table>
    <template v-if="read.value.value!.mayMove">
      <StockForm v-if="moving" v-bind="known" @leave="moving = false" @moved="((moving = false), read.load())" />
      <p v-else><NButton size="small" @click="moving = true">Move or count</NButton></p>
    </template>
    <div v-if="read.value.value!.rows.length" class="scroll">
      <table class="plain-table" aria-label="Movements">
        <thead>
          <tr>
            <th>Day</th>
            <th>What</th>
            <th class="amount">How much</th>
            <th class="amount">Price of one</th>
            <th>{{ ofPart ? 'Store' : 'Part' }}</th>
            <th>For</th>
            <th>By</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in read.value.value!.rows" :key="row.id">
            <td class="mono">{{ dayOf(row.at) }}</td>
            <td>
              {{ MOVEMENT_NAMES[row.kind] }}<span v-if="row.reason" class="soft"> {{ row.reason }}</span>
            </td>
            <td class="amount mono">{{ number(row.quantity) }} {{ row.unit }}</td>
            <td class="amount mono money">{{ writtenAs('money', row.unitCostMinor) }}</td>
            <td>{{ ofPart ? row.store : row.part }}</td>
            <td>
              <RouterLink v-if="row.orderId" class="mono" :to="`/desk/charges/order/${row.orderId}`">{{ row.orderNumber }}</RouterLink><template v-else
                >–</template
              >
            </td>
            <td>{{ row.by ?? '–' }}</td>
          </tr>
        </tbody>
      </table>
    </div>
  </LoadedPart>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
}
.levels {
  max-width: 640px;
}
.money {
  color: var(--violet);
}
</style>
