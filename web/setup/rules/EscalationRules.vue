<script setup lang="ts">
import { ChoiceEntry } from '#web/kit'
import { ref } from 'vue'
import type { RuleBookSheet } from '#contract/setup'
import { ESCALATION_ROLE_NAMES, escalationSentence } from '#core/orders'
import type { EscalationRule, RuleNames } from '#core/orders'
import ConditionFields from './ConditionFields.vue'
import PeopleSelect from './PeopleSelect.vue'
import RuleList from './RuleList.vue'

/** Who hears of a promise that is close or past. */
defineProps<{ sheet: RuleBookSheet; names: RuleNames }>()
defineEmits<{ save: [EscalationRule[]] }>()
const list = ref<{ close: () => void } | null>(null)
defineExpose({ close: () => list.value?.close() })
const WHEN = [
  { value: 'close', label: 'close to its target' },
  { value: 'past', label: 'past its target (also by mail)' },
] as const
</script>

<template>
  <RuleList
    id="escalations"
    ref="list"
    :rules="sheet.book.escalations"
    :sentence="(rule) => escalationSentence(rule, names)"
    :blank="(): EscalationRule => ({ at: 'past', when: {}, tell: ['coordinators'] })"
    add="Add a rule for who is told"
    none="Nobody is told; the lists and gauges show it all the same."
    @save="$emit('save', $event)"
  >
    <template #default="{ rule, set }">
      <ChoiceEntry id="escalation-at" label="When it is" :model-value="rule.at" :options="WHEN" @update:model-value="$event && set({ at: $event })" />
      <PeopleSelect
        id="escalation-tell"
        label="Who is told"
        :roles="ESCALATION_ROLE_NAMES"
        :model-value="rule.tell"
        @update:model-value="set({ tell: $event as EscalationRule['tell'] })"
      />
      <ConditionFields id="escalation" :model-value="rule.when" :names="names" :own="sheet.own" @update:model-value="set({ when: $event })" />
    </template>
  </RuleList>
</template>
