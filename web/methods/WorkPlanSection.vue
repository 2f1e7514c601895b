<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, nextTick, ref } from 'vue'
import { dropStep, readOrderPlan, savePlan, takeOffMethod } from '#contract/methods'
import type { OrderPlan, OrderStep } from '#contract/methods'
import type { OrderSheet } from '#contract/orders'
import { INSPECTION_NAMES, inspectionState } from '#core/methods'
import type { PlanLines } from '#core/methods'
import { call, LoadedPart, RecordLink, useRead, useSession } from '#web/kit'
import { useLineAct, useOpenSheet } from '#web/sheets'
import { LoneWork } from '#web/field'
import { OrderBookings } from '#web/bookings'
import { OrderParts } from '#web/stock'
import EstimateCard from './EstimateCard.vue'
import KeepForm from './KeepForm.vue'
import LinesForm from './LinesForm.vue'
import NeedsList from './NeedsList.vue'
import OfferList from './OfferList.vue'
import OrderStepForm from './OrderStepForm.vue'
import ReadyList from './ReadyList.vue'
import StepRow from './StepRow.vue'

/** What is done on the order and what it takes: methods, steps, labour, parts, tools, hazards. */
const { sheet } = useOpenSheet<OrderSheet>()
const session = useSession()
const read = useRead(readOrderPlan, () => ({ orderId: sheet.value.id }), {
  holds: true,
  touchedBy: ({ orderId }) => orderId === sheet.value.id,
})
const plan = computed(() => read.value.value!)
const open = ref<'offers' | 'step' | 'lines' | 'keep' | null>(null)
const editing = ref<number | null>(null)
const draft = ref<PlanLines | null>(null)
const { act, at, busy, first } = useLineAct<OrderPlan>(() => void read.load())
const mayDo = computed(() => plan.value.mayEdit)
/** Before anybody has begun, what dispatch still waits for is worth knowing. */
const goes = computed(() => ['draft', 'to_approve', 'ready', 'dispatched'].includes(sheet.value.state))
const mayKeep = computed(() => session.can('registers.edit') && (plan.value.steps.length > 0 || plan.value.labour.length > 0))

const waitsFor = (step: OrderStep) => plan.value.steps.find((one) => one.id === step.afterId && one.state === 'open')?.text ?? null
const inspection = computed(() => (sheet.value.kind === 'inspection' ? inspectionState(plan.value.steps, sheet.value.findings.found) : null))
const openCount = computed(() => plan.value.steps.filter((step) => step.state === 'open').length)
function changed(): void {
  open.value = editing.value = null
  void read.load()
}
function editLines(): void {
  const { labour, parts, tools, hazards } = plan.value
  draft.value = JSON.parse(JSON.stringify({ labour, parts, tools, hazards })) as PlanLines
  open.value = 'lines'
  void nextTick(() => document.querySelector<HTMLElement>('form[data-plan-lines] button, form[data-plan-lines] input')?.focus({ preventScroll: true }))
}
async function keepLines(): Promise<void> {
  if (await act(() => call(savePlan, { orderId: plan.value.orderId, version: plan.value.version, ...draft.value! }), 'What it needs is kept.'))
    open.value = null
}
const takeOff = (appliedId: number, name: string) =>
  act(() => call(takeOffMethod, { orderId: plan.value.orderId, version: plan.value.version, appliedId }), `${name} is taken off.`)
const drop = (step: OrderStep) => act(() => call(dropStep, { id: step.id, version: step.version }), 'The step is taken out.')
</script>

<template>
  <LoadedPart :part="read">
    <ReadyList v-if="goes" :sheet="sheet" :plan="plan" />
    <p v-if="plan.methods.length" class="methods">
      By
      <span v-for="one in plan.methods" :key="one.id" class="method">
        <RecordLink :record="{ register: 'methods', id: one.methodId }">{{ one.name }}</RecordLink>
        <span class="soft"> version {{ one.edition }}{{ one.newer ? ', written anew since' : '' }}</span>
        <NButton v-if="plan.mayEdit" size="tiny" quaternary :aria-label="`Take off: ${one.name}`" :disabled="busy" @click="takeOff(one.id, one.name)"
          >Take off</NButton
        >
      </span>
    </p>
    <template v-if="plan.steps.length">
      <p class="soft">
        {{ openCount ? `${openCount} of ${plan.steps.length} steps to do` : 'Every step is done'
        }}<template v-if="inspection">. Inspection: {{ INSPECTION_NAMES[inspection] }}</template>
      </p>
      <StepRow v-for="step in plan.steps" :key="`${step.id}-${step.version}`" :step="step" :waits-for="waitsFor(step)" :may-do="mayDo" @changed="read.load">
        <template v-if="plan.mayEdit && step.state === 'open'" #acts>
          <NButton size="tiny" quaternary :aria-label="`Change or give: ${step.text}`" @click="editing = editing === step.id ? null : step.id">Change</NButton>
          <NButton size="tiny" quaternary :aria-label="`Take out: ${step.text}`" :disabled="busy" @click="drop(step)">Take out</NButton>
        </template>
        <template v-if="editing === step.id" #default>
          <OrderStepForm class="wide" :plan="plan" :step="step" @leave="editing = null" @kept="changed" />
        </template>
      </StepRow>
    </template>
    <NeedsList
      v-if="open !== 'lines' && (plan.labour.length || plan.tools.length || plan.hazards.length)"
      class="needs"
      :lines="{ ...plan, parts: [] }"
      :names="plan.names"
    />
    <LoneWork v-if="open !== 'lines'" :order-id="plan.orderId" :may-edit="plan.mayEdit" />
    <OrderParts v-if="open !== 'lines'" :order-id="plan.orderId" :order-number="sheet.number" :version="sheet.version" />
    <OrderBookings v-if="open !== 'lines'" :order-id="plan.orderId" />
    <EstimateCard v-if="open !== 'lines' && (plan.labour.length || plan.parts.length)" :order-id="plan.orderId" :version="plan.version" />
    <form
      v-if="open === 'lines' && draft"
      data-plan-lines
      aria-label="What it needs"
      @submit.prevent="keepLines"
      @keydown.ctrl.enter.prevent="keepLines"
      @keydown.esc.stop="open = null"
    >
      <LinesForm id="plan" v-model="draft" :names="plan.names" :at="at" />
      <p v-if="first" class="problem" role="alert">Nothing was kept yet. {{ first }}</p>
      <div class="acts">
        <NButton type="primary" attr-type="submit" :disabled="busy">Keep it</NButton>
        <NButton @click="open = null">Leave it</NButton>
      </div>
    </form>
    <OfferList v-if="open === 'offers'" :plan="plan" @applied="changed" @leave="open = null" />
    <OrderStepForm v-if="open === 'step'" :plan="plan" @leave="open = null" @kept="changed" />
    <KeepForm v-if="open === 'keep'" :order-id="plan.orderId" @leave="open = null" />
    <div v-if="!open" class="acts">
      <template v-if="plan.mayEdit">
        <NButton @click="open = 'offers'">Apply a method</NButton>
        <NButton @click="open = 'step'">Add a step</NButton>
        <NButton @click="editLines">Change what it needs</NButton>
      </template>
      <p v-else-if="!plan.steps.length && !plan.methods.length" class="soft">Nothing was planned. {{ plan.whyNot }}</p>
      <NButton v-if="mayKeep" @click="open = 'keep'">Make a method of it</NButton>
    </div>
  </LoadedPart>
</template>

<style scoped>
.methods {
  margin: 0 0 6px;
}
.method {
  margin-right: 12px;
}
.needs {
  margin-top: 12px;
}
.wide {
  grid-column: 1 / -1;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-top: 10px;
}
</style>
