<script setup lang="ts">
import { computed, ref } from 'vue'
import { editCrew, readCrew } from '#contract/people'
import type { CrewEdit, CrewSheet } from '#contract/people'
import type { RecordFrame } from '#contract/registers'
import { ROLE_NAMES, WEEKDAYS, weekMinutes, readStretches } from '#core/people'
import { longTime, placeChoices, ProblemNote, useVocabulary } from '#web/kit'
import { ConflictBox, provideSheet, SheetFact, TagRow, useOpenSheet, useSheet } from '#web/sheets'
import type { SheetField } from '#web/sheets'
import DayLists from './DayLists.vue'
import SkillList from './SkillList.vue'
import RateList from './RateList.vue'

/** Somebody at work: roles and deputies; what a technician is sent out as, can do, when, and for how much. */
const { sheet: open } = useOpenSheet<RecordFrame & { state: string }>()
const { sheet, save, saveFrom, sentenceAt, conflict, settle, follow } = useSheet<CrewSheet, CrewEdit>(open.value.id, readCrew, editCrew)
follow((change) => change.register === 'people' && change.recordId === open.value.id)
const it = computed(() => sheet.value.value!)
const words = useVocabulary()
void words.ensure()
provideSheet<CrewSheet, Record<string, unknown>>({
  sheet: it,
  whyNot: (name) => it.value.whyNot ?? (it.value.isTechnician || name === 'teamId' ? undefined : 'Say the team first: it makes a technician of them.'),
  save: (fields) => save(fields as never),
  saveFrom,
  sentenceAt,
  reload: sheet.load,
  begun: ref(null),
})
const DAYS = ['day1', 'day2', 'day3', 'day4', 'day5', 'day6', 'day7'] as const
const team: SheetField<CrewSheet> = {
  name: 'teamId',
  label: 'Team',
  kind: 'pick',
  choices: () => words.choices((all) => all.teams),
  current: (crew) => (crew.teamId ? { value: crew.teamId, label: crew.team ?? '' } : null),
  leads: (crew) => (crew.teamId ? { register: 'teams', id: crew.teamId } : null),
}
const facts: SheetField<CrewSheet>[] = [
  {
    name: 'homePlaceId',
    label: 'Home base',
    kind: 'pick',
    clearable: true,
    find: (_, text) => placeChoices(text),
    current: (crew) => (crew.homePlaceId ? { value: crew.homePlaceId, label: crew.home ?? '' } : null),
    leads: (crew) => (crew.homePlaceId ? { register: 'places', id: crew.homePlaceId } : null),
  },
  { name: 'stepMinutes', label: 'Charged in steps of', kind: 'count', max: 120, unit: 'minutes' },
  { name: 'callOutMinutes', label: 'A call-out at least', kind: 'count', max: 480, unit: 'minutes' },
]
const week: SheetField<CrewSheet>[] = DAYS.map((name, index) => ({
  name,
  label: WEEKDAYS[index]!,
  kind: 'line',
  max: 80,
  mono: true,
  says: (crew) => crew[name] ?? 'off',
  hint: () => '08:00-12:30, 13:00-16:30; empty for a day off',
}))
const hours = computed(() => weekMinutes(DAYS.map((day) => readStretches(it.value[day] ?? '') ?? [])) / 60)
const take = (now: CrewSheet): void => void (sheet.value.value = now)
const names: Record<string, string> = { teamId: 'Team', homePlaceId: 'Home base', stepMinutes: 'Charged in steps of', callOutMinutes: 'A call-out at least' }
</script>

<template>
  <ProblemNote v-if="sheet.problem.value && !sheet.value.value" :problem="sheet.problem.value" @retry="sheet.load" />
  <span v-else-if="!sheet.value.value" class="bones wait" role="status" aria-label="Loading" />
  <div v-else class="crew">
    <p v-if="it.roles.length">
      <template v-for="(role, index) in it.roles" :key="index"
        ><template v-if="index">, </template>{{ `${ROLE_NAMES[role.role]}\u0020`
        }}<span class="soft">{{ role.site ? `at ${role.site}` : 'at every site' }}</span></template
      >
    </p>
    <p v-else class="soft">No account: they report, and are not signed in.</p>
    <p v-for="deputy in it.deputies" :key="`${deputy.name}${deputy.fromAt}`">
      {{ deputy.standsIn ? `Decides for ${deputy.name}` : `${deputy.name} decides for them` }} from {{ longTime(deputy.fromAt) }} to
      {{ longTime(deputy.untilAt) }}
    </p>
    <dl class="facts">
      <SheetFact :field="team" />
      <template v-if="it.isTechnician"><SheetFact v-for="field in facts" :key="field.name" :field="field" /></template>
    </dl>
    <p v-if="!it.isTechnician && !it.whyNot" class="soft">No technician. A team makes one of them.</p>
    <template v-if="it.isTechnician">
      <h3>Trades</h3>
      <TagRow
        id="crew-trade"
        of="trade"
        :tags="it.trades"
        :choices="words.choices((all) => all.trades)"
        :why-not="it.whyNot"
        none="None said: nobody finds them by their trade."
        @keep="(tradeIds) => save({ tradeIds })"
      />
      <SkillList :crew="it" @now="take" />
      <h3>
        Week <span class="soft">{{ hours }} hours</span>
      </h3>
      <dl class="facts"><SheetFact v-for="field in week" :key="field.name" :field="field" /></dl>
      <DayLists :crew="it" @now="take" />
      <RateList v-if="it.rates" :crew="it" @now="take" />
    </template>
    <ConflictBox v-if="conflict" :conflict="conflict" :names="names" :show="(_, value) => String(value ?? 'nothing')" @settle="settle" />
  </div>
</template>

<style scoped>
.wait {
  height: 80px;
}
.crew {
  display: grid;
  gap: 8px;
}
h3 {
  font-size: 13px;
  font-weight: 600;
  margin: 6px 0 0;
}
h3 .soft {
  font-weight: 400;
}
</style>
