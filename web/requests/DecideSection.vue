<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, ref } from 'vue'
import type { RequestSheet, TriageFields } from '#contract/requests'
import { formatMinor } from '#core/kit'
import { isUndecided, PRIORITIES, PRIORITY_NAMES } from '#core/requests'
import type { Priority } from '#core/requests'
import { FactRow, PriorityBar, spell } from '#web/kit'
import { HazardFields, hazardSays, PictureRow, PriorityGrid, SheetFact, useOpenSheet } from '#web/sheets'
import { useDeciding } from './deciding'
import OverrideForm from './OverrideForm.vue'
import PrecedentList from './PrecedentList.vue'
import SuggestionBox from './SuggestionBox.vue'

/** What was reported, and what is decided of it: open for input where this is what the station does. */
const props = defineProps<{ now?: boolean }>()
const { sheet: it, save, whyNot } = useOpenSheet<RequestSheet, TriageFields>()
const { fields, decide, joinTo } = useDeciding()
const overriding = ref(false)
const open = computed(() => !!props.now && !whyNot('consequence'))
const left = computed(() => (it.value.budget ? it.value.budget.budgetMinor - it.value.budget.chargedMinor - it.value.budget.committedMinor : 0))
</script>

<template>
  <template v-if="now">
    <p v-if="it.state === 'asked'" class="outcome">Waiting for the answer to: {{ it.question }}</p>
    <p class="text reported">{{ it.description }}</p>
    <dl v-if="it.answers.length" class="facts">
      <FactRow v-for="one in it.answers" :key="one.label" :name="one.label" :label="one.label" :says="one.answer" why-not="The reporter answered this." />
    </dl>
    <PictureRow v-if="it.attachments.length" :pictures="it.attachments" />
    <p v-for="one in it.bulletins" :key="one.id" class="outcome">
      A notice is in force here: <strong>{{ one.title }}</strong>
    </p>
    <SuggestionBox
      v-if="isUndecided(it.state)"
      :request-id="it.id"
      :version="it.version"
      :category-id="it.categoryId"
      :asset-id="it.asset?.id ?? null"
      :may-triage="open"
      @take="decide"
      @join="joinTo"
    />
  </template>
  <component :is="open ? 'div' : 'dl'" :class="open ? 'decided' : 'facts'">
    <SheetFact v-for="field in [fields.placeId, fields.assetId, fields.categoryId, fields.payerId]" :key="field.name" :field="field" :open="now" />
    <template v-if="open">
      <PriorityGrid class="whole" :matrix="it.decides.matrix" :consequence="it.consequence" :urgency="it.urgency" @choose="decide" />
      <HazardFields :table="it.decides.hazards" :severity="it.hazardSeverity" :likelihood="it.hazardLikelihood" @save="save($event)" />
    </template>
    <FactRow v-else-if="hazardSays(it)" name="hazardSeverity" label="Hazard" :says="hazardSays(it)" :why-not="whyNot('hazardSeverity')" />
  </component>
  <p v-if="it.budget" class="budget" :class="{ wrong: left < 0 }">
    Budget of the payer: <span class="mono violet">{{ formatMinor(left) }}</span> left of <span class="mono">{{ formatMinor(it.budget.budgetMinor) }}</span>,
    with <span class="mono">{{ formatMinor(it.budget.committedMinor) }}</span> committed to approved work.
  </p>
  <div class="verdict">
    <template v-if="it.priority">
      <p><PriorityBar :priority="it.priority" /> {{ it.prioritySentence }}</p>
      <p v-if="it.promise" class="soft">
        Promised: somebody responds within {{ spell(it.promise.responseMinutes) }}, finished within {{ spell(it.promise.completionMinutes)
        }}{{ it.promise.clock === 'working' ? ' of working time' : ', day and night' }}, counted from when it was received.
      </p>
    </template>
    <p v-else class="soft">Who is affected and how soon give the priority.</p>
    <NButton v-if="open && it.priority && !overriding" text type="primary" class="link" @click="overriding = true">
      Set another priority, with a reason
    </NButton>
    <OverrideForm
      v-if="overriding"
      :choices="PRIORITIES.map((one) => ({ value: one, label: PRIORITY_NAMES[one] }))"
      @leave="overriding = false"
      @save="(priority, reason) => save({ priority: priority as Priority, priorityReason: reason }).then((ok) => (overriding = !ok))"
    />
  </div>
  <PrecedentList v-if="now" :request-id="it.id" :version="it.version" />
</template>

<style scoped src="../sheets/sheet.css"></style>
<style scoped>
.decided {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(210px, 1fr));
  gap: 8px 14px;
}
.decided > .whole {
  grid-column: 1 / -1;
}
.reported {
  border-left: 3px solid var(--tide);
  padding-left: 12px;
  max-height: 9em;
  overflow: auto;
}
.wrong {
  color: var(--buoy);
}
</style>
