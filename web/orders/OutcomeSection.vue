<script setup lang="ts">
import { computed } from 'vue'
import type { OrderSheet } from '#contract/orders'
import { ORDER_MOVES } from '#core/orders'
import { jumpTo } from '#web/kit'
import { CostLine } from '#web/ledger'
import { ReasonList, SheetFact, useOpenSheet } from '#web/sheets'
import { useFieldsHere } from './orderFields'

/** What was found and done; at Wrap-up with what it cost and what is lacking before it can be checked. */
const props = defineProps<{ now?: boolean }>()
const { sheet: it, whyNot } = useOpenSheet<OrderSheet>()
const fields = useFieldsHere()
const open = computed(() => !!props.now && !whyNot('symptom'))
const lacking = computed(() => ORDER_MOVES.check.needs.flatMap((need) => need(it.value.facts)))
</script>

<template>
  <template v-if="now">
    <div v-if="lacking.length" role="group" aria-label="Missing before it can be checked">
      <p class="soft">Missing before it can be checked:</p>
      <ReasonList missing :reasons="lacking" @jump="jumpTo" />
    </div>
    <p v-else>Nothing is lacking; it can be marked as checked.</p>
    <CostLine :sheet="it" />
  </template>
  <component :is="open ? 'div' : 'dl'" class="facts three">
    <SheetFact v-for="field in [fields.symptom, fields.cause, fields.fix]" :key="field.name" :field="field" :open="open" />
  </component>
  <p v-if="it.outcomeNote" class="text">{{ it.outcomeNote }}</p>
</template>

<style scoped>
.three {
  grid-template-columns: repeat(auto-fit, minmax(min(100%, 150px), 1fr));
}
.text {
  white-space: pre-wrap;
}
</style>
