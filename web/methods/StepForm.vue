<script setup lang="ts">
import { NCheckbox } from 'naive-ui/es/checkbox'
import { ref } from 'vue'
import { STEP_KIND_NAMES, STEP_KINDS } from '#core/methods'
import type { StepFields } from '#core/methods'
import { DecimalField, ListEntry, named, TextEntry } from '#web/kit'

/** What a step asks of who does it. */
const props = defineProps<{ id: string; number?: number; at?: (field: string) => string | undefined }>()
const step = defineModel<StepFields>({ required: true })
const set = (change: Partial<StepFields>) => (step.value = { ...step.value, ...change })
const asNumber = (value: number | string | null) => (value === null ? null : Number(value))
const said = (field: string) => props.at?.(field)
/** Answers are typed with semicolons between. */
const typed = ref(step.value.choices.join('; '))
function typeChoices(text: string): void {
  typed.value = text
  set({
    choices: text
      .split(';')
      .map((one) => one.trim())
      .filter(Boolean),
  })
}
</script>

<template>
  <div class="step">
    <TextEntry
      :id="`${id}-text`"
      class="text"
      :label="number ? `Step ${number}` : 'Step'"
      :model-value="step.text"
      :problem="said('text')"
      @update:model-value="set({ text: String($event ?? '') })"
    />
    <ListEntry
      :id="`${id}-kind`"
      label="Asks for"
      :model-value="step.kind"
      :options="named(STEP_KINDS, STEP_KIND_NAMES)"
      @update:model-value="$event && set({ kind: $event })"
    />
    <template v-if="step.kind === 'measured'">
      <TextEntry
        :id="`${id}-unit`"
        label="Unit"
        :model-value="step.unit ?? ''"
        :problem="said('unit')"
        @update:model-value="set({ unit: String($event ?? '').trim() || null })"
      />
      <DecimalField
        :id="`${id}-least`"
        label="At least"
        kind="quantity"
        signed
        :value="step.least"
        :problem="said('least')"
        @save="set({ least: asNumber($event) })"
      />
      <DecimalField
        :id="`${id}-most`"
        label="At most"
        kind="quantity"
        signed
        :value="step.most"
        :problem="said('most')"
        @save="set({ most: asNumber($event) })"
      />
    </template>
    <TextEntry
      v-if="step.kind === 'choice'"
      :id="`${id}-choices`"
      class="answers"
      label="Answers, with semicolons between"
      :model-value="typed"
      :problem="said('choices')"
      @update:model-value="typeChoices(String($event ?? ''))"
    />
    <div class="first">
      <NCheckbox :checked="step.first" @update:checked="set({ first: $event })">Before anybody is dispatched</NCheckbox>
      <slot />
    </div>
  </div>
</template>

<style scoped>
.step {
  display: grid;
  grid-template-columns: minmax(0, 3fr) minmax(0, 2fr) repeat(3, minmax(0, 1fr));
  gap: 8px;
  align-items: start;
}
.answers {
  grid-column: span 3;
}
@media (max-width: 720px) {
  .step {
    grid-template-columns: repeat(3, minmax(0, 1fr));
  }
  .text,
  .answers {
    grid-column: 1 / -1;
  }
}
.first {
  grid-column: 1 / -1;
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  align-items: center;
}
</style>
