<script setup lang="ts">
import { NCheckbox } from 'naive-ui/es/checkbox'
import { ref } from 'vue'
import type { RuleBookSheet } from '#contract/setup'
import { approvalRuleSentence } from '#core/orders'
import type { ApprovalRule, Asked, RuleNames } from '#core/orders'
import ConditionFields from './ConditionFields.vue'
import PeopleSelect from './PeopleSelect.vue'
import RuleList from './RuleList.vue'

/** Who agrees besides somebody whose limit covers it: several at once, or one after the other. */
defineProps<{ sheet: RuleBookSheet; names: RuleNames }>()
defineEmits<{ save: [ApprovalRule[]] }>()
const list = ref<{ close: () => void } | null>(null)
defineExpose({ close: () => list.value?.close() })
</script>

<template>
  <RuleList
    id="approvals"
    ref="list"
    :rules="sheet.book.approvals"
    :sentence="(rule) => approvalRuleSentence(rule, names)"
    :blank="(): ApprovalRule => ({ when: {}, asks: [], inOrder: false })"
    add="Add a rule for approval"
    none="Only the limits decide: anybody whose limit covers the estimate can approve."
    @save="$emit('save', $event)"
  >
    <template #default="{ rule, set }">
      <PeopleSelect
        id="approval-asks"
        label="Who has to agree"
        :roles="{ supervisor: 'whoever supervises it' }"
        :among="(account) => account.roles.includes('approver')"
        :model-value="rule.asks"
        @update:model-value="set({ asks: $event as Asked[] })"
      />
      <NCheckbox :checked="rule.inOrder" @update:checked="(on: boolean) => set({ inOrder: on })">One after the other, in this order</NCheckbox>
      <ConditionFields id="approval" without-states :model-value="rule.when" :names="names" :own="sheet.own" @update:model-value="set({ when: $event })" />
    </template>
  </RuleList>
</template>
