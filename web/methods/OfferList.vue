<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { NCheckbox } from 'naive-ui/es/checkbox'
import { computed, ref, watch } from 'vue'
import { applyMethods, offerMethods } from '#contract/methods'
import type { OfferedMethod, OrderPlan } from '#contract/methods'
import { counted } from '#core/kit'
import { labourMinutes } from '#core/methods'
import { call, freshKey, ProblemNote, RecordLink, spell, TextEntry, useLoading, useSoon, useFirstField } from '#web/kit'
import { useLineAct } from '#web/sheets'
import NeedsList from './NeedsList.vue'
import StepsRead from './StepsRead.vue'

/** Methods that fit the order, with why; what each adds is read before it is applied. */
const props = defineProps<{ plan: OrderPlan }>()
const emit = defineEmits<{ applied: []; leave: [] }>()
const text = ref('')
const offers = useLoading(() => call(offerMethods, { orderId: props.plan.orderId, ...(text.value.trim() ? { q: text.value.trim() } : {}) }))
void offers.load()
const look = useSoon(offers.load, 200)
watch(text, look)
const chosen = ref<number[]>([])
const shown = ref<number | null>(null)
const key = freshKey()
const rows = computed(() => offers.value.value?.rows ?? [])
const toggle = (id: number, on: boolean) => (chosen.value = on ? [...chosen.value, id] : chosen.value.filter((one) => one !== id))
function adds({ content }: OfferedMethod): string {
  const minutes = labourMinutes(content.labour)
  return [
    content.steps.length ? counted(content.steps.length, 'step') : '',
    minutes ? spell(minutes) : '',
    content.parts.length ? counted(content.parts.length, 'part') : '',
    content.tools.length ? counted(content.tools.length, 'tool') : '',
    content.hazards.length ? counted(content.hazards.length, 'hazard') : '',
  ]
    .filter(Boolean)
    .join(', ')
}
const { act, busy } = useLineAct<OrderPlan>(() => emit('applied'))
const apply = () =>
  act(
    () => call(applyMethods, { orderId: props.plan.orderId, version: props.plan.version, methodIds: chosen.value }, { key }),
    `${counted(chosen.value.length, 'method')} applied. What they brought can be changed now.`,
  )
const form = ref<HTMLElement | null>(null)
useFirstField(form)
</script>

<template>
  <div ref="form" class="offers" @keydown.esc.stop="emit('leave')">
    <TextEntry id="offer-q" v-model="text" kind="search" label="Find a method by name or code" />
    <ProblemNote v-if="offers.problem.value" :problem="offers.problem.value" @retry="offers.load" />
    <p v-else-if="offers.value.value && !rows.length" class="soft">
      {{
        text.trim()
          ? `No method is called “${text.trim()}”, or the order has it already.`
          : 'No method fits this order. Find one by its name, or add steps of its own.'
      }}
    </p>
    <ul v-else aria-label="Methods that fit">
      <li v-for="one in rows" :key="one.id">
        <div class="line">
          <NCheckbox :checked="chosen.includes(one.id)" :aria-label="`Apply ${one.code} ${one.name}`" @update:checked="toggle(one.id, $event)">
            <strong>{{ one.name }}</strong>
          </NCheckbox>
          <RecordLink class="mono" :record="{ register: 'methods', id: one.id }">{{ one.code }}</RecordLink>
          <span class="soft">{{ adds(one) }}</span>
          <NButton size="tiny" quaternary :aria-expanded="shown === one.id" @click="shown = shown === one.id ? null : one.id">{{
            shown === one.id ? 'Fold' : 'What it adds'
          }}</NButton>
        </div>
        <p v-if="one.reasons.length" class="why">{{ one.reasons.join('. ') }}.</p>
        <div v-if="shown === one.id" class="preview">
          <StepsRead :steps="one.content.steps" />
          <NeedsList :lines="one.content" :names="offers.value.value!.names" />
        </div>
      </li>
    </ul>
    <div class="acts">
      <NButton type="primary" :disabled="busy || !chosen.length" @click="apply">{{
        chosen.length > 1 ? `Apply ${chosen.length} methods` : 'Apply the method'
      }}</NButton>
      <NButton @click="emit('leave')">Leave it</NButton>
    </div>
  </div>
</template>

<style scoped>
.offers {
  background: var(--shoal-faint);
  border-radius: 6px;
  padding: 10px 12px;
}
ul {
  list-style: none;
  margin: 8px 0;
  padding: 0;
}
li {
  padding: 6px 0;
  border-bottom: 1px solid var(--line);
}
.line {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 10px;
  align-items: center;
}
.why {
  margin: 2px 0 0 24px;
}
.preview {
  margin: 8px 0 4px 24px;
}
.acts {
  display: flex;
  gap: 8px;
}
</style>
