<script setup lang="ts">
import { computed } from 'vue'
import type { Agreement, OrderSheet } from '#contract/orders'
import { allocate, formatMinor } from '#core/kit'
import { shortTime, writtenAs } from '#web/kit'
import { isUnapproved } from '#core/orders'

/** Who has to agree and why, who is away, and what the payers have left. */
const props = defineProps<{ sheet: OrderSheet; agreement: Agreement }>()
const deciding = computed(() => isUnapproved(props.sheet.state))
const several = computed(() => new Set(props.agreement.agreements.map((one) => one.position)).size > 1)
/** What is left of a budget after what was charged and what is on its way. */
const left = (one: Agreement['budgets'][number]) => one.budgetMinor - one.chargedMinor - one.committedMinor
const payers = computed(() => {
  const parts = allocate(
    props.sheet.estimateMinor ?? 0,
    props.sheet.shares.map((share) => share.shareBp),
  )
  return props.sheet.shares.map((share, index) => ({
    ...share,
    part: parts[index]!,
    budget: props.agreement.budgets.find((budget) => budget.payerId === share.payerId),
  }))
})
</script>

<template>
  <div v-if="deciding">
    <p v-if="sheet.estimateMinor === null">The estimate decides who has to approve it.</p>
    <ol v-else class="asks" aria-label="Who has to agree">
      <li v-for="(one, index) in agreement.agreements" :key="index" :class="{ given: one.decided }">
        <span v-if="several" class="mono turn">{{ one.position }}</span><span
          >{{ one.why || 'Somebody whose limit covers it approves it.' }} <strong v-if="one.decided">Agreed.</strong></span
        >
      </li>
    </ol>
    <p v-if="sheet.estimateMinor !== null" class="soft">
      <template v-if="agreement.approvers.length"
        >{{ formatMinor(sheet.estimateMinor) }} {{ sheet.site.currency }} is within the limit of
        {{ agreement.approvers.map((one) => `${one.name} (to ${formatMinor(one.limitMinor)})`).join(' or ') }}.</template
      >
      <template v-else>It is over everybody’s limit: nobody can approve it.</template>
    </p>
    <p v-for="one in agreement.approvers.filter((person) => person.deputy)" :key="one.name" class="away">
      {{ one.name }} is away until {{ shortTime(one.awayUntil!) }}; {{ one.deputy }} decides meanwhile.
    </p>
  </div>
  <div v-if="sheet.shares.length" class="scroll">
    <table class="plain-table" aria-label="Out of which budget">
      <thead>
        <tr>
          <th>Payer</th>
          <th class="amount">Share</th>
          <th class="amount">Of the estimate</th>
          <th class="amount">Budget</th>
          <th class="amount">Left of it</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="one in payers" :key="one.payerId">
          <td>{{ one.payerCode }} {{ one.payerName }}</td>
          <td class="amount">{{ writtenAs('percent', one.shareBp) }} %</td>
          <td class="amount violet">{{ sheet.estimateMinor === null ? '–' : formatMinor(one.part) }}</td>
          <td class="amount">{{ one.budget ? formatMinor(one.budget.budgetMinor) : 'none' }}</td>
          <td class="amount">
            <template v-if="one.budget">
              <span :title="`${formatMinor(one.budget.chargedMinor)} charged and ${formatMinor(one.budget.committedMinor)} committed to approved work`">{{
                formatMinor(left(one.budget))
              }}</span>
              <strong v-if="deciding && left(one.budget) < one.part" class="wrong over"
                >This order would go {{ formatMinor(one.part - left(one.budget)) }} over.</strong
              >
            </template>
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.asks {
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
.over {
  display: block;
  /* In words, not figures: it may break where the column ends. */
  white-space: normal;
  min-width: 12ch;
  font-family: var(--text);
}
.scroll {
  overflow-x: auto;
}
</style>
