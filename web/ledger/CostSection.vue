<script setup lang="ts">
import type { OrderSheet } from '#contract/orders'
import { formatMinor } from '#core/kit'
import { COST_KIND_NAMES } from '#core/ledger'
import { useOpenSheet } from '#web/sheets'
import CostLine from './CostLine.vue'

const { sheet: it } = useOpenSheet<OrderSheet>()
</script>

<template>
  <CostLine :sheet="it" />
  <div v-if="it.costs.length" class="scroll">
    <table class="plain-table">
      <thead>
        <tr>
          <th>Kind</th>
          <th>What</th>
          <th class="amount">Quantity</th>
          <th class="amount">Each</th>
          <th class="amount">Cost</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="line in it.costs" :key="line.kind + line.sourceId">
          <td>{{ COST_KIND_NAMES[line.kind] }}</td>
          <td>{{ line.description }}</td>
          <td class="amount">{{ line.quantity }} {{ line.unit }}</td>
          <td class="amount">{{ formatMinor(line.unitCost) }}</td>
          <td class="amount">{{ formatMinor(line.cost) }}</td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
}
</style>
