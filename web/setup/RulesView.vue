<script setup lang="ts">
import { NSwitch } from 'naive-ui/es/switch'
import { computed, ref, watch } from 'vue'
import { readSelf } from '#contract/people'
import { readRuleBook, saveRules } from '#contract/setup'
import type { RuleBookSheet, SaveRules } from '#contract/setup'
import type { RuleBook, RuleSection } from '#core/orders'
import { ListEntry, call, ProblemNote, useKeeping, useLoading, useSession, useVocabulary } from '#web/kit'
import ApprovalRules from './rules/ApprovalRules.vue'
import CalendarForm from './rules/CalendarForm.vue'
import CompletenessTable from './rules/CompletenessTable.vue'
import ConsentList from './rules/ConsentList.vue'
import EscalationRules from './rules/EscalationRules.vue'
import BuyingForm from './rules/BuyingForm.vue'
import VendorWaitForm from './rules/VendorWaitForm.vue'
import DayPlanForm from './rules/DayPlanForm.vue'
import PlanningForm from './rules/PlanningForm.vue'
import PriorityTable from './rules/PriorityTable.vue'
import PromiseExceptions from './rules/PromiseExceptions.vue'
import ReasonRules from './rules/ReasonRules.vue'
import { useRuleNames } from './rules/ruleNames'
import WritingForm from './rules/WritingForm.vue'
import SetupTabs from './SetupTabs.vue'

/** Every rule a site decides by, readable as sentences and in force as soon as it is kept. */
const session = useSession()
const words = useVocabulary()
void words.ensure()
const siteId = ref(session.self!.site.id)
const rules = useLoading(() => call(readRuleBook, { siteId: siteId.value }))
watch(siteId, () => void rules.load(), { immediate: true })
const keeping = useKeeping(rules)
const lists = ref<Record<string, { close: () => void } | null>>({})
const sheet = computed(() => rules.value.value!)
const names = useRuleNames(() => sheet.value)

/** Keeps one section; a refusal leaves what was typed, and shows what stands when somebody was faster. */
async function save<Section extends RuleSection>(section: Section, content: RuleBook[Section]): Promise<void> {
  const change = { siteId: siteId.value, version: sheet.value.versions[section], section, content } as SaveRules
  if (await keeping.keep(() => call(saveRules, change), 'Kept; it is in force from now on.')) lists.value[section]?.close()
  else if (keeping.problem.value?.problem.status === 409) await rules.load()
}
/** Who writes at this site sees it at once; others with their next page. */
async function saveWriting(writing: RuleBook['writing']): Promise<void> {
  await save('writing', writing)
  if (siteId.value === session.self!.site.id) session.refresh(await call(readSelf, {}))
}
const keep = (change: () => Promise<RuleBookSheet>, done: string) => keeping.keep(change, done)
/** What each section is called where it is spoken of. */
const SECTION_NAMES: Record<RuleSection, string> = {
  matrix: 'priorities',
  hazards: 'hazards',
  completeness: 'completeness',
  reasons: 'reasons',
  approvals: 'approval',
  escalations: 'who is told',
  ownSubmissions: 'approving what one submitted',
  writing: 'how the site writes',
  planning: 'planning',
  buying: 'buying',
  dayPlans: 'what a computed plan pays for',
  vendors: 'vendors who do not answer',
}
const INDEX = [
  ['priorities', 'Priorities'],
  ['promises', 'Promises'],
  ['told', 'Who is told'],
  ['complete', 'Completeness'],
  ['agree', 'Approval'],
  ['reasons', 'Reasons'],
  ['planning', 'Planning'],
  ['buying', 'Buying'],
  ['day-plans', 'Computed plans'],
  ['vendors', 'Vendors'],
  ['writing', 'Numbers and days'],
] as const
</script>

<template>
  <div class="page">
    <header>
      <h1>Setup</h1>
      <SetupTabs />
    </header>
    <div class="top">
      <ListEntry
        id="rules-site"
        label="Site"
        :model-value="siteId"
        :options="words.choices((all) => all.sites)"
        @update:model-value="siteId = ($event as number | null) ?? siteId"
      />
      <nav aria-label="Sections">
        <a v-for="[id, name] in INDEX" :key="id" :href="`#rules-${id}`">{{ name }}</a>
      </nav>
    </div>
    <ProblemNote v-if="rules.problem.value && !rules.value.value" :problem="rules.problem.value" @retry="rules.load" />
    <template v-else-if="rules.value.value">
      <p v-if="sheet.unreadable.length" class="problem" role="alert">
        What is kept for {{ sheet.unreadable.map((section) => SECTION_NAMES[section]).join(', ') }} cannot be read. The usual rules are in force until others
        are kept here.
      </p>
      <section id="rules-priorities" aria-label="Priorities">
        <h2>What makes a priority</h2>
        <PriorityTable :book="sheet.book" @matrix="save('matrix', $event)" @hazards="save('hazards', $event)" />
      </section>
      <section id="rules-promises" aria-label="Promises">
        <h2>Promises for single categories</h2>
        <PromiseExceptions :sheet="sheet" :keep="keep" :problem="keeping.problem.value" />
        <h2>Working hours and holidays</h2>
        <CalendarForm :sheet="sheet" :keep="keep" :problem="keeping.problem.value" />
      </section>
      <section id="rules-told" aria-label="Who is told">
        <h2>Who is told of a target close or past</h2>
        <EscalationRules :ref="(one) => (lists.escalations = one as never)" :sheet="sheet" :names="names" @save="save('escalations', $event)" />
      </section>
      <section id="rules-complete" aria-label="Completeness">
        <h2>What has to be known before an order is submitted</h2>
        <CompletenessTable :rules="sheet.book.completeness" @save="save('completeness', $event)" />
      </section>
      <section id="rules-agree" aria-label="Approval">
        <h2>Who has to agree</h2>
        <p class="soft">Somebody whose limit covers the estimate approves in any case. Limits stand under “People and rules”.</p>
        <label class="own-choice"
          ><NSwitch
            :value="sheet.book.ownSubmissions === 'own_limit'"
            aria-label="Somebody may approve what they submitted, when their own limit covers it"
            @update:value="(on: boolean) => save('ownSubmissions', on ? 'own_limit' : 'never')"
          />
          Somebody may approve what they submitted, when their own limit covers it</label
        >
        <ApprovalRules :ref="(one) => (lists.approvals = one as never)" :sheet="sheet" :names="names" @save="save('approvals', $event)" />
        <h3>Payers who are asked</h3>
        <ConsentList :sheet="sheet" :names="names" :keep="keep" :problem="keeping.problem.value" />
      </section>
      <section id="rules-reasons" aria-label="Reasons">
        <h2>Which moves need a written reason</h2>
        <ReasonRules :ref="(one) => (lists.reasons = one as never)" :sheet="sheet" :names="names" @save="save('reasons', $event)" />
      </section>
      <section id="rules-planning" aria-label="Planning">
        <h2>What a plan may grow to, and what parts count for</h2>
        <PlanningForm :rules="sheet.book.planning" @save="save('planning', $event)" />
      </section>
      <section id="rules-buying" aria-label="Buying">
        <h2>When parts are bought, and how many</h2>
        <BuyingForm :rules="sheet.book.buying" @save="save('buying', $event)" />
      </section>
      <section id="rules-day-plans" aria-label="Computed plans">
        <h2>What a computed plan pays for</h2>
        <DayPlanForm :rules="sheet.book.dayPlans" @save="save('dayPlans', $event)" />
      </section>
      <section id="rules-vendors" aria-label="Vendors">
        <h2>When a vendor does not answer</h2>
        <VendorWaitForm :rules="sheet.book.vendors" @save="save('vendors', $event)" />
      </section>
      <section id="rules-writing" aria-label="Numbers and days">
        <h2>How numbers, days and times are written</h2>
        <WritingForm :writing="sheet.book.writing" :currency="sheet.currency" @save="saveWriting" />
      </section>
    </template>
    <div v-else class="bones wait" />
  </div>
</template>

<style scoped src="../kit/page.css"></style>
<style scoped>
.top {
  display: flex;
  flex-wrap: wrap;
  gap: 12px 24px;
  align-items: end;
}
section :deep(h3),
section h2:not(:first-child) {
  margin-top: 12px;
}
.own-choice {
  display: inline-flex;
  gap: 8px;
  align-items: center;
  margin-bottom: 8px;
}
.top nav {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  padding-bottom: 6px;
}
</style>
