<script setup lang="ts">
import { RouterLink } from 'vue-router'
import { computed, ref } from 'vue'
import type { OrderFields, OrderSheet } from '#contract/orders'
import { FactRow, shortTime, spell, useVocabulary } from '#web/kit'
import { HazardFields, hazardSays, PictureRow, PriorityGrid, SheetFact, useOpenSheet } from '#web/sheets'
import { isAskedNow, useFieldsHere } from './orderFields'
import type { OrderFieldTable } from './orderFields'
import ShareFields from './ShareFields.vue'
import { sharesSay } from './sharesSay'

/** What the order says, to be read; each fact turns into its field when pressed. */
const { sheet: it, save, sentenceAt, whyNot } = useOpenSheet<OrderSheet, OrderFields>()
const fields = useFieldsHere()
const words = useVocabulary()
const grid = ref<{ close: () => void } | null>(null)
type Name = keyof OrderFieldTable
const WHAT: Name[] = ['description', 'placeId', 'assetId']
const PLAN: Name[] = ['kind', 'tradeId', 'teamId', 'leadId', 'supervisorId', 'vendorId', 'estimateMinor']
const AROUND: Name[] = ['contactName', 'contactPhone', 'access', 'noteForWorker', 'noteForPayer', 'outsideReference']
const facts = (names: Name[]) => names.filter((name) => !isAskedNow(it.value.state, name)).map((name) => fields[name])
const priority = computed(() => {
  const { prioritySentence, target, gauge } = it.value
  const left =
    gauge.remainingMinutes > 0 && !target.finishedAt ? `, ${spell(gauge.remainingMinutes)} of ${target.clock === 'working' ? 'working time' : 'time'} left` : ''
  return prioritySentence && `${prioritySentence} Target ${shortTime(target.completionDueAt)}${left}.`
})
</script>

<template>
  <p v-if="it.callBackOf">
    The fault came back after <RouterLink class="mono" :to="`/desk/wrapup/order/${it.callBackOf.id}`">{{ it.callBackOf.number }}</RouterLink>
  </p>
  <p v-for="request in it.requests" :key="request.id">
    Answers
    <RouterLink :to="`/desk/triage/request/${request.id}`"
      ><span class="mono">{{ request.number }}</span> {{ request.summary }}</RouterLink
    ><template v-if="request.reporterName"> from {{ request.reporterName }}</template>
  </p>
  <dl class="facts">
    <SheetFact :field="fields.summary" />
    <SheetFact v-for="field in facts(WHAT)" :key="field.name" :field="field" />
    <FactRow
      ref="grid"
      name="consequence"
      also="urgency"
      label="Priority"
      wide
      :says="priority"
      :why-not="whyNot('consequence')"
      :problem="sentenceAt('consequence')"
    >
      <PriorityGrid :matrix="it.decides.matrix" :consequence="it.consequence" :urgency="it.urgency" @choose="(said) => (grid?.close(), save(said))" />
    </FactRow>
    <FactRow
      name="hazardSeverity"
      also="hazardLikelihood"
      label="Hazard"
      :says="hazardSays(it)"
      :why-not="whyNot('hazardSeverity')"
      :problem="sentenceAt('hazardSeverity')"
      wide
    >
      <HazardFields
        :table="it.decides.hazards"
        :severity="it.hazardSeverity"
        :likelihood="it.hazardLikelihood"
        :problem="sentenceAt('hazardSeverity')"
        @save="save($event)"
      />
    </FactRow>
    <SheetFact v-for="field in facts(PLAN)" :key="field.name" :field="field" />
    <FactRow
      v-if="!isAskedNow(it.state, 'shares')"
      name="shares"
      label="Who pays"
      wide
      :says="sharesSay(it.shares)"
      :why-not="whyNot('shares')"
      :problem="sentenceAt('shares')"
    >
      <ShareFields :shares="it.shares" :choices="words.choices((all) => all.payers)" :problem="sentenceAt('shares')" @save="save({ shares: $event })" />
    </FactRow>
    <SheetFact v-for="field in facts(AROUND)" :key="field.name" :field="field" />
  </dl>
  <PictureRow v-if="it.attachments.length" :pictures="it.attachments" />
</template>
