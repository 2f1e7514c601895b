<script setup lang="ts">
import { RouterLink } from 'vue-router'
import type { PostingRow } from '#contract/orders'
import { formatMinor } from '#core/kit'
import { shortTime } from '#web/kit'

defineProps<{ postings: PostingRow[]; currency: string; linked: boolean }>()
</script>

<template>
  <p v-if="!postings.length" class="soft">Nothing has been charged. A checked order is posted once; a mistake is corrected by a reversal that stays visible.</p>
  <div v-for="posting in postings" :key="posting.id" class="posting">
    <p>
      <strong>{{ posting.kind === 'posting' ? 'Posted' : 'Reversed' }}</strong> {{ shortTime(posting.at) }}, period
      <span class="mono">{{ posting.month }}</span>
    </p>
    <table class="plain-table">
      <thead>
        <tr>
          <th>Payer</th>
          <th class="amount">Share</th>
          <th class="amount">Net</th>
          <th class="amount">Tax</th>
          <th class="amount">Charged, {{ currency }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="charge in posting.charges" :key="charge.id">
          <td>
            <RouterLink v-if="linked" :to="`/ledger/${charge.payerId}/${posting.month}?job=${charge.id}`"
              >{{ charge.payerCode }} {{ charge.payerName }}</RouterLink
            ><template v-else>{{ charge.payerCode }} {{ charge.payerName }}</template
            ><span v-if="charge.ownCost" class="soft"> own cost</span>
          </td>
          <td class="amount">{{ charge.shareBp / 100 }} %</td>
          <td class="amount">{{ formatMinor(charge.netMinor) }}</td>
          <td class="amount">{{ formatMinor(charge.taxMinor) }}</td>
          <td class="amount violet">{{ formatMinor(charge.grossMinor) }}</td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.posting {
  overflow-x: auto;
  display: grid;
  gap: 4px;
}
</style>
