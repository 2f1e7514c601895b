<script setup lang="ts">
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
      <div class="field">
        <label for="escalation-at">When it is</label>
        <select id="escalation-at" class="entry" :value="rule.at" @change="set({ at: ($event.target as HTMLSelectElement).value as 'close' | 'past' })">
          <option value="close">close to its target</option>
          <option value="past">past its target (also by mail)</option>
        </select>
      </div>
      <PeopleSelect
        id="escalation-tell"
        label="Who is told"
        :roles="ESCALATION_ROLE_NAMES"
        :model-value="rule.tell"
        @update:model-value="set({ tell: $event as EscalationRule['tell'] })"
      />
      <ConditionFields id="escalation" :model-value="rule.when" :names="names" @update:model-value="set({ when: $event })" />
    </template>
  </RuleList>
</template>
