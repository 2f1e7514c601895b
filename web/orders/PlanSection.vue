<script setup lang="ts">
import { computed } from 'vue'
import type { OrderFields, OrderSheet } from '#contract/orders'
import { completeForApproval } from '#core/orders'
import { jumpTo, useVocabulary } from '#web/kit'
import { ReasonList, SheetFact, useOpenSheet } from '#web/sheets'
import { useFieldsHere } from './orderFields'
import ShareFields from './ShareFields.vue'

/** What a draft still lacks, and the plan that is made of it: open for input. */
const { sheet: it, save, sentenceAt, whyNot } = useOpenSheet<OrderSheet, OrderFields>()
const fields = useFieldsHere()
const words = useVocabulary()
const open = computed(() => !whyNot('kind'))
const missing = computed(() => completeForApproval(it.value.facts))
</script>

<template>
  <div v-if="missing.length" role="group" aria-label="Missing before it can be submitted">
    <p class="soft">Missing before it can be submitted:</p>
    <ReasonList missing :reasons="missing" @jump="jumpTo" />
  </div>
  <p v-else>Everything is there; it can be submitted.</p>
  <component :is="open ? 'div' : 'dl'" :class="open ? 'plan' : 'facts'">
    <SheetFact
      v-for="field in [fields.tradeId, fields.teamId, fields.leadId, fields.supervisorId, fields.estimateMinor, fields.kind, fields.vendorId]"
      :key="field.name"
      :field="field"
      open
    />
  </component>
  <ShareFields
    :shares="it.shares"
    :choices="words.choices((all) => all.payers)"
    :disabled="!!whyNot('shares')"
    :problem="sentenceAt('shares')"
    @save="save({ shares: $event })"
  />
</template>

<style scoped>
.plan {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(190px, 1fr));
  gap: 8px 14px;
}
</style>
