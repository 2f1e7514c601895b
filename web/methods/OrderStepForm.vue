<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, ref } from 'vue'
import { addStep, editStep } from '#contract/methods'
import type { OrderPlan, OrderStep } from '#contract/methods'
import { PLAIN_STEP } from '#core/methods'
import type { StepFields } from '#core/methods'
import { call, freshKey, ListEntry, rowsNamed, useVocabulary, useFirstField } from '#web/kit'
import { useLineAct } from '#web/sheets'
import StepForm from './StepForm.vue'

/** A step of an order that is added or changed: what it asks, who does it, what it waits for, where it stands. */
const props = defineProps<{ plan: OrderPlan; step?: OrderStep }>()
const emit = defineEmits<{ leave: []; kept: [] }>()
const words = useVocabulary()
void words.ensure()
const from = props.step
const fields = ref<StepFields>(
  from
    ? { text: from.text, kind: from.kind, unit: from.unit, least: from.least, most: from.most, choices: from.choices, first: from.first }
    : { ...PLAIN_STEP },
)
const assigneeId = ref(from?.assignee?.id ?? null)
const afterId = ref(from?.afterId ?? null)
/** Where it stands: before another, or 0 for the end; nothing to leave it where it is. */
const before = ref<number | null>(null)
const others = computed(() => props.plan.steps.filter((one) => one.id !== from?.id).map((one) => ({ value: one.id, label: `${one.position}. ${one.text}` })))
const key = freshKey()
const { act, at, busy } = useLineAct<OrderPlan>(() => emit('kept'))
const keep = () => {
  const sent = { ...fields.value, assigneeId: assigneeId.value, afterId: afterId.value }
  return from
    ? act(
        () => call(editStep, { id: from.id, version: from.version, ...sent, ...(before.value === null ? {} : { before: before.value || null }) }),
        'The step is changed.',
      )
    : act(() => call(addStep, { orderId: props.plan.orderId, ...sent }, { key }), 'The step is added.')
}
const form = ref<HTMLElement | null>(null)
useFirstField(form)
</script>

<template>
  <form
    ref="form"
    class="form"
    :aria-label="from ? 'Change the step' : 'Add a step'"
    @submit.prevent="keep"
    @keydown.ctrl.enter.prevent="keep"
    @keydown.esc.stop="emit('leave')"
  >
    <StepForm id="o-step" v-model="fields" :at="at" />
    <div class="row">
      <ListEntry
        id="o-step-who"
        v-model="assigneeId"
        label="Done by"
        clearable
        placeholder="Whoever has the order"
        :options="rowsNamed(words.lists?.accounts)"
        :problem="at('assigneeId')"
      />
      <ListEntry id="o-step-after" v-model="afterId" label="Waits for" clearable placeholder="Nothing" :options="others" :problem="at('afterId')" />
      <ListEntry
        v-if="from"
        id="o-step-before"
        v-model="before"
        label="Put before"
        clearable
        placeholder="Stays where it is"
        :options="[...others, { value: 0, label: 'The end' }]"
        :problem="at('before')"
      />
    </div>
    <div class="row">
      <NButton type="primary" attr-type="submit" :disabled="busy">{{ from ? 'Keep it' : 'Add the step' }}</NButton>
      <NButton @click="emit('leave')">Leave it</NButton>
    </div>
  </form>
</template>

<style scoped>
.form {
  background: var(--shoal-faint);
  border-radius: 6px;
  padding: 10px 12px;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  margin-top: 8px;
}
.row > .list-entry {
  flex: 1 1 180px;
}
</style>
