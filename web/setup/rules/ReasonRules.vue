<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { ref } from 'vue'
import { tryReasonRules } from '#contract/setup'
import type { RuleBookSheet, TriedMove } from '#contract/setup'
import { MOVES_WITH_REASON, ORDER_MOVES, ORDER_STATE_NAMES, reasonRuleSentence } from '#core/orders'
import type { ReasonRule, RuleNames } from '#core/orders'
import { ListEntry, TextEntry, call, CallProblem } from '#web/kit'
import ConditionFields from './ConditionFields.vue'
import RuleList from './RuleList.vue'

/** Which moves need a written reason, and for which orders; tried out on an order before anybody else meets it. */
const props = defineProps<{ sheet: RuleBookSheet; names: RuleNames }>()
defineEmits<{ save: [ReasonRule[]] }>()
const list = ref<{ close: () => void } | null>(null)
const number = ref('')
const tried = ref<{ order: { number: string; summary: string; state: keyof typeof ORDER_STATE_NAMES }; moves: TriedMove[] } | null>(null)
const wrong = ref('')

async function tryOut(draft: ReasonRule): Promise<void> {
  wrong.value = ''
  tried.value = null
  try {
    tried.value = await call(tryReasonRules, { siteId: props.sheet.siteId, number: number.value.trim(), rules: plain([...props.sheet.book.reasons, draft]) })
  } catch (error) {
    if (!(error instanceof CallProblem)) throw error
    wrong.value = error.reasons[0]?.sentence ?? error.message
  }
}
/** Reasons as they are kept: each once, none empty. While they are typed, an empty line is where the next one begins. */
const plain = (rules: ReasonRule[]) => rules.map((rule) => ({ ...rule, answers: [...new Set(rule.answers.map((one) => one.trim()).filter(Boolean))] }))
defineExpose({ close: () => list.value?.close() })
</script>

<template>
  <RuleList
    id="reasons"
    ref="list"
    :rules="sheet.book.reasons"
    :sentence="(rule) => reasonRuleSentence(rule, names)"
    :blank="(): ReasonRule => ({ move: 'hold', when: {}, answers: [] })"
    add="Add a rule for reasons"
    none="No rules of your own. Sending back, holding, reopening, cancelling and reversing need a reason in any case."
    @save="$emit('save', plain($event))"
  >
    <template #default="{ rule, set }">
      <div class="two">
        <ListEntry
          id="reason-move"
          label="For the move"
          :model-value="rule.move"
          :options="MOVES_WITH_REASON.map((move) => ({ value: move, label: ORDER_MOVES[move].label }))"
          @update:model-value="$event && set({ move: $event })"
        />
        <TextEntry
          id="reason-answers"
          long
          label="Reasons to choose from, one a line; leave empty for free words"
          :model-value="rule.answers.join('\n')"
          @update:model-value="set({ answers: $event.split('\n') })"
        />
      </div>
      <ConditionFields id="reason" :model-value="rule.when" :names="names" :own="sheet.own" @update:model-value="set({ when: $event })" />
      <div class="try">
        <TextEntry id="reason-try" v-model="number" label="Try it on an order" mono :max="16" placeholder="W-31207" @keydown.enter.prevent="tryOut(rule)" />
        <NButton @click="tryOut(rule)">Try it out</NButton>
        <p v-if="wrong" class="problem" role="alert">{{ wrong }}</p>
        <div v-if="tried" role="status">
          <p>
            <span class="mono">{{ tried.order.number }}</span> {{ tried.order.summary }}, {{ ORDER_STATE_NAMES[tried.order.state] }}:
          </p>
          <ul>
            <li v-for="move in tried.moves" :key="move.move">
              “{{ move.label }}”
              {{ move.needed ? (move.answers.length ? `asks for one of: ${move.answers.join('; ')}` : 'asks for a reason') : 'asks for nothing' }}.
              <span v-if="move.because.length" class="soft">{{ move.because.join(' ') }}</span>
            </li>
          </ul>
        </div>
      </div>
    </template>
  </RuleList>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: 1fr 2fr;
  gap: 8px 12px;
}
.try {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 8px;
}
.try > :last-child:not(button) {
  flex-basis: 100%;
}
@media (max-width: 700px) {
  .two {
    grid-template-columns: 1fr;
  }
}
</style>
