<script setup lang="ts">
import { computed } from 'vue'
import type { OrderSheet } from '#contract/orders'
import { formatMinor } from '#core/kit'
import { shortTime } from '#web/kit'
import { isUnapproved } from '#core/orders'

/** Who has to agree and why, who is away, and what the payers have left. */
const props = defineProps<{ sheet: OrderSheet }>()
const deciding = computed(() => isUnapproved(props.sheet.state))
const several = computed(() => new Set(props.sheet.agreements.map((one) => one.position)).size > 1)
const payerName = (id: number) => {
  const share = props.sheet.shares.find((one) => one.payerId === id)
  return share ? `${share.payerCode} ${share.payerName}` : ''
}
/** What is left of a budget after what was charged and what is on its way. */
const left = (one: OrderSheet['budgets'][number]) => one.budgetMinor - one.chargedMinor - one.committedMinor
const theirs = (payerId: number) => {
  const share = props.sheet.shares.find((one) => one.payerId === payerId)
  return Math.round(((props.sheet.estimateMinor ?? 0) * (share?.shareBp ?? 0)) / 10_000)
}
</script>

<template>
  <div v-if="deciding">
    <p v-if="sheet.estimateMinor === null">The estimate decides who has to approve it.</p>
    <ol v-else class="asks" aria-label="Who has to agree">
      <li v-for="(one, index) in sheet.agreements" :key="index" :class="{ given: one.decided }">
        <span v-if="several" class="mono turn">{{ one.position }}</span><span
          >{{ one.why || 'Somebody whose limit covers it approves it.' }} <strong v-if="one.decided">Agreed.</strong></span
        >
      </li>
    </ol>
    <p v-if="sheet.estimateMinor !== null" class="soft">
      <template v-if="sheet.approvers.length"
        >{{ formatMinor(sheet.estimateMinor) }} {{ sheet.site.currency }} is within the limit of
        {{ sheet.approvers.map((one) => `${one.name} (to ${formatMinor(one.limitMinor)})`).join(' or ') }}.</template
      >
      <template v-else>It is over everybody’s limit: nobody can approve it.</template>
    </p>
    <p v-for="one in sheet.approvers.filter((person) => person.deputy)" :key="one.name" class="away">
      {{ one.name }} is away until {{ shortTime(one.awayUntil!) }}; {{ one.deputy }} decides meanwhile.
    </p>
  </div>
  <ul v-if="sheet.budgets.length" class="budgets" aria-label="Budgets">
    <li v-for="one in sheet.budgets" :key="one.payerId">
      {{ payerName(one.payerId) }}: <span class="mono">{{ formatMinor(left(one)) }}</span> left of <span class="mono">{{ formatMinor(one.budgetMinor) }}</span>,
      with <span class="mono">{{ formatMinor(one.chargedMinor) }}</span> charged and <span class="mono">{{ formatMinor(one.committedMinor) }}</span> committed.
      <strong v-if="deciding && left(one) < theirs(one.payerId)" class="wrong"
        >This order would go {{ formatMinor(theirs(one.payerId) - left(one)) }} over.</strong
      >
    </li>
  </ul>
</template>

<style scoped>
.asks,
.budgets {
  list-style: none;
  margin: 0 0 8px;
  padding: 0;
  display: grid;
  gap: 4px;
}
.asks li {
  display: flex;
  gap: 8px;
  padding: 4px 10px;
  border-left: 3px solid var(--line-strong);
}
.asks .given {
  border-left-color: var(--tide);
}
.turn {
  color: var(--ink-soft);
}
.away {
  padding: 4px 10px;
  border-left: 3px solid var(--sand);
}
.wrong {
  color: var(--buoy);
}
</style>
