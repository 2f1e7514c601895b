<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { reactive } from 'vue'
import { saveConsent } from '#contract/setup'
import type { RuleBookSheet } from '#contract/setup'
import { formatMinor } from '#core/kit'
import type { RuleNames } from '#core/orders'
import { call, PickField, MoneyField, useVocabulary } from '#web/kit'
import type { CallProblem } from '#web/kit'

/** Payers who want to be asked before more than an amount is spent at their cost. */
const props = defineProps<{
  sheet: RuleBookSheet
  names: RuleNames
  problem: CallProblem | null
  keep: (change: () => Promise<RuleBookSheet>, done: string) => Promise<boolean>
}>()
const words = useVocabulary()
const form = reactive({ payerId: null as number | null, accountId: null as number | null, aboveMinor: null as number | null })
async function save(): Promise<void> {
  const { payerId, ...rest } = form
  if (await props.keep(() => call(saveConsent, { siteId: props.sheet.siteId, payerId: payerId ?? 0, ...rest }), 'The payer is asked from now on.'))
    Object.assign(form, { payerId: null, accountId: null, aboveMinor: null })
}
const drop = (payerId: number) =>
  props.keep(() => call(saveConsent, { siteId: props.sheet.siteId, payerId, accountId: null, aboveMinor: null }), 'The payer is not asked any more.')
</script>

<template>
  <ul>
    <li v-for="one in sheet.consents" :key="one.payerId">
      <span>{{ names.account(one.accountId!) }} consents for {{ names.payer(one.payerId) }} to more than {{ formatMinor(one.aboveMinor!) }}.</span>
      <NButton :aria-label="`Remove: ask ${one.payerName} no more`" @click="drop(one.payerId)">Remove</NButton>
    </li>
  </ul>
  <p v-if="!sheet.consents.length" class="soft">No payer asks to be asked.</p>
  <form class="new" aria-label="Consent of a payer" @submit.prevent="save">
    <PickField
      id="consent-payer"
      label="Payer"
      :value="form.payerId"
      :choices="words.choices((all) => all.payers)"
      :problem="problem?.at('payerId')"
      @pick="form.payerId = $event as number"
    />
    <PickField
      id="consent-account"
      label="Who consents"
      :value="form.accountId"
      :choices="words.choices((all) => all.accounts.filter((one) => one.roles.includes('approver')))"
      :problem="problem?.at('accountId')"
      @pick="form.accountId = $event as number"
    />
    <MoneyField name="consent-above" label="Above" :value="form.aboveMinor" :problem="problem?.at('aboveMinor')" @save="form.aboveMinor = $event" />
    <NButton attr-type="submit">Ask this payer</NButton>
  </form>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: flex;
  gap: 8px;
  align-items: center;
  padding: 4px 0;
}
.new {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(200px, 1fr));
  gap: 8px 12px;
  align-items: end;
}
</style>
