<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { previewCharges } from '#contract/ledger'
import type { OrderSheet } from '#contract/orders'
import { isChange } from '#core/events'
import { formatMinor } from '#core/kit'
import { jumpTo, ProblemNote, useRead, useSession, writtenAs } from '#web/kit'
import { useOpenSheet } from '#web/sheets'
import PostingList from './PostingList.vue'

/** What was charged; where that waits to be posted, who will pay what. */
const props = defineProps<{ now?: boolean }>()
const { sheet: it, whyNot } = useOpenSheet<OrderSheet>()
const session = useSession()
const preview = useRead(previewCharges, () => (props.now ? { id: it.value.id } : null), {
  anew: true,
  touchedBy: ({ kind, orderId }) => orderId === it.value.id && isChange(kind),
})
</script>

<template>
  <template v-if="now">
    <ProblemNote v-if="preview.problem.value" :problem="preview.problem.value" @retry="preview.load" />
    <div v-else-if="preview.value.value" class="scroll">
      <table class="plain-table" aria-label="Who will pay what">
        <thead>
          <tr>
            <th>Who will pay</th>
            <th class="amount">Share</th>
            <th class="amount">Net</th>
            <th class="amount">Tax</th>
            <th class="amount">To charge, {{ it.site.currency }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="one in preview.value.value.charges" :key="one.payerId">
            <td>{{ one.payerCode }} {{ one.payerName }}<span v-if="one.ownCost" class="soft"> own cost</span></td>
            <td class="amount">{{ writtenAs('percent', one.shareBp) }} %</td>
            <td class="amount">{{ formatMinor(one.netMinor) }}</td>
            <td class="amount">{{ formatMinor(one.taxMinor) }}</td>
            <td class="amount violet">{{ formatMinor(one.grossMinor) }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <span v-else class="bones" role="status" aria-label="Loading" />
    <p v-if="!whyNot('shares')">
      <NButton text type="primary" class="link" @click="jumpTo('shares')">Change who pays</NButton>
    </p>
  </template>
  <PostingList v-if="!now || it.postings.length" :postings="it.postings" :currency="it.site.currency" :linked="session.can('ledger.read')" />
</template>

<style scoped>
.scroll {
  overflow-x: auto;
}
.bones {
  height: 60px;
}
</style>
