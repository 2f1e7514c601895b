<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { ref } from 'vue'
import { writeMethod } from '#contract/methods'
import type { MethodEdition } from '#contract/methods'
import { PLAIN_STEP } from '#core/methods'
import type { MethodContent, MethodStep, PlanLines, StepFields } from '#core/methods'
import { call, freshKey, ListEntry, TextEntry, useFirstField } from '#web/kit'
import { useLineAct } from '#web/sheets'
import LinesForm from './LinesForm.vue'
import StepForm from './StepForm.vue'

/** A method written anew: its next version, made from the newest. */
const props = defineProps<{ methodId: number; edition: MethodEdition }>()
const emit = defineEmits<{ leave: []; written: [edition: MethodEdition] }>()
const content = ref<MethodContent>(JSON.parse(JSON.stringify(props.edition.content)) as MethodContent)
const note = ref('')
const key = freshKey()
const { act, at, busy, first } = useLineAct<MethodEdition>((edition) => emit('written', edition))

const setSteps = (steps: MethodStep[]) => (content.value = { ...content.value, steps })
function change(index: number, to: StepFields & { after?: number | null }): void {
  setSteps(content.value.steps.map((step, other) => (other === index ? { ...step, ...to } : step)))
}
function add(): void {
  setSteps([...content.value.steps, { ...PLAIN_STEP, after: null }])
}
/** What waited for a step keeps waiting for it wherever it goes, and for nothing once it is gone. */
function rearrange(order: number[]): void {
  const steps = content.value.steps
  setSteps(
    order.map((from) => {
      const after = steps[from]!.after === null ? -1 : order.indexOf(steps[from]!.after)
      return { ...steps[from]!, after: after >= 0 && after < order.indexOf(from) ? after : null }
    }),
  )
}
const all = () => content.value.steps.map((_, index) => index)
function move(index: number, by: 1 | -1): void {
  const order = all()
  order.splice(index + by, 0, ...order.splice(index, 1))
  rearrange(order)
}
const drop = (index: number) => rearrange(all().filter((one) => one !== index))
const earlier = (index: number) => content.value.steps.slice(0, index).map((step, place) => ({ value: place, label: `${place + 1}. ${step.text || '…'}` }))
const lines = { get: (): PlanLines => content.value, set: (to: PlanLines) => (content.value = { ...content.value, ...to }) }
const write = () =>
  act(
    () => call(writeMethod, { id: props.methodId, from: props.edition.edition, content: content.value, note: note.value.trim() }, { key }),
    `Version ${props.edition.edition + 1} is written. Orders keep the version they were given.`,
  )
const form = ref<HTMLElement | null>(null)
useFirstField(form)
</script>

<template>
  <form ref="form" aria-label="Write it anew" @submit.prevent="write" @keydown.ctrl.enter.prevent="write" @keydown.esc.stop="emit('leave')">
    <h4>Steps</h4>
    <div v-for="(step, index) in content.steps" :key="index" class="row">
      <StepForm
        :id="`m-step-${index}`"
        :number="index + 1"
        :model-value="step"
        :at="(field) => at(`content.steps.${index}.${field}`) ?? at(`steps.${index}.${field}`)"
        @update:model-value="change(index, $event)"
      >
        <ListEntry
          v-if="index > 0"
          :id="`m-after-${index}`"
          label="Waits for"
          inline
          clearable
          placeholder="Nothing"
          small
          :model-value="step.after"
          :options="earlier(index)"
          @update:model-value="change(index, { ...step, after: $event === null ? null : Number($event) })"
        />
        <NButton size="small" :disabled="index === 0" :aria-label="`Step ${index + 1} up`" @click="move(index, -1)">Up</NButton>
        <NButton size="small" :disabled="index === content.steps.length - 1" :aria-label="`Step ${index + 1} down`" @click="move(index, 1)">Down</NButton>
        <NButton size="small" :aria-label="`Take out step ${index + 1}`" @click="drop(index)">Take out</NButton>
      </StepForm>
    </div>
    <p><NButton size="small" @click="add">Add a step</NButton></p>
    <LinesForm id="m" :model-value="lines.get()" :names="edition.names" :at="(field) => at(`content.${field}`) ?? at(field)" @update:model-value="lines.set" />
    <TextEntry id="m-note" v-model="note" label="What is new in this version" />
    <p v-if="first" class="problem" role="alert">Nothing was kept yet. {{ first }}</p>
    <div class="acts">
      <NButton type="primary" attr-type="submit" :disabled="busy">Keep as version {{ edition.edition + 1 }}</NButton>
      <NButton @click="emit('leave')">Leave it</NButton>
    </div>
  </form>
</template>

<style scoped>
h4 {
  margin: 0 0 6px;
}
.row {
  border-left: 3px solid var(--shoal);
  padding: 4px 0 8px 10px;
  margin-bottom: 8px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: end;
  margin-top: 8px;
}
</style>
