<script setup lang="ts">
import { ref } from 'vue'
import { tryReasonRules } from '#contract/setup'
import type { RuleBookSheet, TriedMove } from '#contract/setup'
import { MOVES_WITH_REASON, ORDER_MOVES, ORDER_STATE_NAMES, reasonRuleSentence } from '#core/orders'
import type { OrderMove, ReasonRule, RuleNames } from '#core/orders'
import { call, CallProblem } from '#web/kit'
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
    tried.value = await call(tryReasonRules, { siteId: props.sheet.siteId, number: number.value.trim(), rules: [...props.sheet.book.reasons, draft] })
  } catch (error) {
    if (!(error instanceof CallProblem)) throw error
    wrong.value = error.reasons[0]?.sentence ?? error.message
  }
}
const lines = (text: string) => [
  ...new Set(
    text
      .split('\n')
      .map((one) => one.trim())
      .filter(Boolean),
  ),
]
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
    @save="$emit('save', $event)"
  >
    <template #default="{ rule, set }">
      <div class="two">
        <div class="field">
          <label for="reason-move">For the move</label>
          <select id="reason-move" class="entry" :value="rule.move" @change="set({ move: ($event.target as HTMLSelectElement).value as OrderMove })">
            <option v-for="move in MOVES_WITH_REASON" :key="move" :value="move">{{ ORDER_MOVES[move].label }}</option>
          </select>
        </div>
        <div class="field">
          <label for="reason-answers">Reasons to choose from, one a line; leave empty for free words</label>
          <textarea
            id="reason-answers"
            class="entry"
            :value="rule.answers.join('\n')"
            @change="set({ answers: lines(($event.target as HTMLTextAreaElement).value) })"
          />
        </div>
      </div>
      <ConditionFields id="reason" :model-value="rule.when" :names="names" @update:model-value="set({ when: $event })" />
      <div class="try">
        <div class="field">
          <label for="reason-try">Try it on an order</label>
          <input id="reason-try" v-model="number" class="entry mono" placeholder="W-31207" maxlength="16" @keydown.enter.prevent="tryOut(rule)" />
        </div>
        <button class="push" type="button" @click="tryOut(rule)">Try it out</button>
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
