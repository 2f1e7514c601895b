<script setup lang="ts">
import { computed } from 'vue'
import { readAgreement } from '#contract/orders'
import type { OrderSheet } from '#contract/orders'
import { isChange } from '#core/events'
import { formatMinor } from '#core/kit'
import { ProblemNote, shortTime, useRead } from '#web/kit'
import { useOpenSheet } from '#web/sheets'
import AgreementList from './AgreementList.vue'

/** What is asked for, by whom, why, and out of which budget; what was decided of it before. */
defineProps<{ now?: boolean }>()
const { sheet: it } = useOpenSheet<OrderSheet>()
const read = useRead(readAgreement, () => ({ id: it.value.id }), { anew: true, touchedBy: ({ kind, orderId }) => orderId === it.value.id && isChange(kind) })
const known = computed(() => read.value.value)
const asked = computed(() => known.value?.approvals.find((one) => !one.decidedAt))
const decided = computed(() => known.value?.approvals.filter((one) => one.decidedAt) ?? [])
const VERDICTS: Record<string, string> = { approved: 'approved', sent_back: 'sent it back', withdrawn: 'called it off' }
</script>

<template>
  <ProblemNote v-if="read.problem.value" :problem="read.problem.value" @retry="read.load" />
  <span v-else-if="!known" class="bones" role="status" aria-label="Loading" />
  <template v-else>
    <p v-if="asked" class="asked">
      <strong class="mono violet amount">{{ formatMinor(asked.amountMinor) }}</strong> {{ it.site.currency }} asked for by {{ asked.askedBy }},
      <span class="mono">{{ shortTime(asked.askedAt) }}</span>
    </p>
    <p v-if="now" class="text work">{{ it.description }}</p>
    <AgreementList :sheet="it" :agreement="known" />
    <p v-for="one in decided" :key="one.id" :class="{ soft: now }">
      {{ one.askedBy }} asked for {{ formatMinor(one.amountMinor) }} at {{ shortTime(one.askedAt) }}. <strong>{{ one.decidedBy }}</strong><template
        v-if="one.actingFor"
        >, acting for {{ one.actingFor }},</template
      >
      {{ VERDICTS[one.verdict ?? ''] }} at {{ shortTime(one.decidedAt!) }}<template v-if="one.note">: “{{ one.note }}”</template>.
    </p>
    <p v-if="!known.approvals.length" class="soft">Nobody has been asked yet.</p>
  </template>
</template>

<style scoped>
.asked .amount {
  font-size: 20px;
}
.work {
  white-space: pre-wrap;
  max-height: 9em;
  overflow: auto;
}
.bones {
  height: 80px;
}
</style>
