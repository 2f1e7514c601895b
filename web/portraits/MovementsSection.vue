<script setup lang="ts">
import { computed } from 'vue'
import { RouterLink } from 'vue-router'
import { readPortraitMovements } from '#contract/portraits'
import type { AnyRecord, PortraitMovement } from '#contract/portraits'
import { dayOf, LoadedPart, useRead, writtenAs } from '#web/kit'
import { useOpenSheet } from '#web/sheets'

/** How much lies where, and what came and went last. */
const { sheet: it } = useOpenSheet<AnyRecord>()
const read = useRead(readPortraitMovements, () => ({ register: it.value.register, id: it.value.id }), {
  holds: true,
  touchedBy: ({ orderId }) => orderId !== null,
})
const ofPart = computed(() => it.value.register === 'parts')
const KINDS: Record<PortraitMovement['kind'], string> = { receipt: 'Receipt', issue: 'Issue', return: 'Return', correction: 'Correction' }
const number = (value: string) => writtenAs('quantity', String(Number(value)))
</script>

<template>
  <LoadedPart :part="read">
    <p v-if="!read.value.value!.levels.length" class="soft">{{ ofPart ? 'It lies in no store.' : 'Nothing lies in it.' }}</p>
    <ul v-else class="levels" aria-label="In stock">
      <li v-for="level in read.value.value!.levels" :key="level.part + level.store">
        {{ ofPart ? level.store : level.part }} <strong class="mono">{{ number(level.quantity) }} {{ level.unit }}</strong>
      </li>
    </ul>
    <div v-if="read.value.value!.rows.length" class="scroll">
      <table class="plain-table" aria-label="Movements">
        <thead>
          <tr>
            <th>Day</th>
            <th>What</th>
            <th class="amount">How much</th>
            <th>{{ ofPart ? 'Store' : 'Part' }}</th>
            <th>For</th>
            <th>By</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in read.value.value!.rows" :key="row.id">
            <td class="mono">{{ dayOf(row.at) }}</td>
            <td>{{ KINDS[row.kind] }}</td>
            <td class="amount mono">{{ number(row.quantity) }} {{ row.unit }}</td>
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
  list-style: none;
  margin: 0 0 8px;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(240px, 1fr));
  gap: 2px 20px;
}
.levels li {
  display: flex;
  justify-content: space-between;
  gap: 8px;
}
</style>
