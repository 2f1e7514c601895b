<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import type { PlanNames } from '#contract/methods'
import { PERMIT_NAMES, PERMITS } from '#core/methods'
import type { PlanLines } from '#core/methods'
import { DecimalField, ListEntry, named, NumberEntry, PickField, rowsNamed, SeveralEntry, TextEntry, useVocabulary } from '#web/kit'
import { equipmentChoices, partChoices } from '#web/stock'

/** What a job needs, line by line. */
const props = defineProps<{ id: string; names: PlanNames; at?: (field: string) => string | undefined }>()
const lines = defineModel<PlanLines>({ required: true })
const words = useVocabulary()
void words.ensure()

type List = keyof PlanLines
function change<L extends List>(list: L, index: number, to: Partial<PlanLines[L][number]>): void {
  lines.value = { ...lines.value, [list]: lines.value[list].map((line, at) => (at === index ? { ...line, ...to } : line)) }
}
const add = (list: List, line: PlanLines[List][number]) => (lines.value = { ...lines.value, [list]: [...lines.value[list], line] })
const drop = (list: List, index: number) => (lines.value = { ...lines.value, [list]: lines.value[list].filter((_, at) => at !== index) })
const said = (list: List, index: number, field: string) => props.at?.(`${list}.${index}.${field}`)
const partNow = (id: number) => {
  const part = props.names.parts[id]
  return id && part ? { value: id, label: `${part.code} ${part.name}, ${part.unit}` } : null
}
const equipmentNow = (id: number | null) => (id === null ? null : { value: id, label: props.names.equipment[id] ?? '' })
</script>

<template>
  <fieldset>
    <legend>Labour</legend>
    <div v-for="(line, index) in lines.labour" :key="index" class="line labour">
      <ListEntry
        :id="`${id}-trade-${index}`"
        label="Of which trade"
        :model-value="line.tradeId || null"
        :options="rowsNamed(words.lists?.trades)"
        :problem="said('labour', index, 'tradeId')"
        @update:model-value="change('labour', index, { tradeId: Number($event ?? 0) })"
      />
      <NumberEntry
        :id="`${id}-people-${index}`"
        label="People"
        :least="1"
        :most="20"
        :model-value="line.people"
        :problem="said('labour', index, 'people')"
        @update:model-value="change('labour', index, { people: $event ?? 1 })"
      />
      <NumberEntry
        :id="`${id}-minutes-${index}`"
        label="Minutes each"
        :least="1"
        :most="60000"
        :step="5"
        :model-value="line.minutes"
        :problem="said('labour', index, 'minutes')"
        @update:model-value="change('labour', index, { minutes: $event ?? 1 })"
      />
      <SeveralEntry
        :id="`${id}-skills-${index}`"
        class="skills"
        label="Skills each needs"
        placeholder="None besides the trade"
        :offers="words.lists?.skills ?? []"
        :model-value="line.skills ?? []"
        :problem="['skills', ...(line.skills ?? []).map((_, at) => `skills.${at}`)].map((field) => said('labour', index, field)).find(Boolean)"
        @update:model-value="change('labour', index, { skills: $event.length ? $event : undefined })"
      />
      <NButton size="small" :aria-label="`Take out labour line ${index + 1}`" @click="drop('labour', index)">Take out</NButton>
    </div>
    <NButton size="small" @click="add('labour', { tradeId: 0, people: 1, minutes: 60 })">Add labour</NButton>
  </fieldset>
  <fieldset>
    <legend>Parts</legend>
    <div v-for="(line, index) in lines.parts" :key="index" class="line parts">
      <PickField
        :id="`${id}-part-${index}`"
        label="Part"
        :value="line.partId || null"
        :current="partNow(line.partId)"
        :find="partChoices"
        :problem="said('parts', index, 'partId')"
        @pick="change('parts', index, { partId: Number($event ?? 0) })"
      />
      <DecimalField
        :id="`${id}-quantity-${index}`"
        label="How many"
        kind="quantity"
        required
        :value="line.quantity"
        :problem="said('parts', index, 'quantity')"
        @save="change('parts', index, { quantity: String($event ?? '1') })"
      />
      <NButton size="small" :aria-label="`Take out part line ${index + 1}`" @click="drop('parts', index)">Take out</NButton>
    </div>
    <NButton size="small" @click="add('parts', { partId: 0, quantity: '1' })">Add a part</NButton>
  </fieldset>
  <fieldset>
    <legend>Tools and equipment</legend>
    <div v-for="(line, index) in lines.tools" :key="index" class="line tools">
      <TextEntry
        :id="`${id}-tool-${index}`"
        label="Tool"
        :model-value="line.text"
        :problem="said('tools', index, 'text')"
        @update:model-value="change('tools', index, { text: String($event ?? '') })"
      />
      <PickField
        :id="`${id}-equipment-${index}`"
        label="Of the equipment that is lent"
        clearable
        :value="line.equipmentId"
        :current="equipmentNow(line.equipmentId)"
        :find="equipmentChoices"
        :problem="said('tools', index, 'equipmentId')"
        @pick="(value, label) => change('tools', index, { equipmentId: value === null ? null : Number(value), ...(value === null ? {} : { text: label }) })"
      />
      <NButton size="small" :aria-label="`Take out tool line ${index + 1}`" @click="drop('tools', index)">Take out</NButton>
    </div>
    <NButton size="small" @click="add('tools', { text: '', equipmentId: null })">Add a tool</NButton>
  </fieldset>
  <fieldset>
    <legend>Hazards</legend>
    <div v-for="(line, index) in lines.hazards" :key="index" class="line hazards">
      <TextEntry
        :id="`${id}-hazard-${index}`"
        label="Hazard"
        :model-value="line.hazard"
        :problem="said('hazards', index, 'hazard')"
        @update:model-value="change('hazards', index, { hazard: String($event ?? '') })"
      />
      <TextEntry
        :id="`${id}-control-${index}`"
        label="What is done about it"
        :model-value="line.control"
        :problem="said('hazards', index, 'control')"
        @update:model-value="change('hazards', index, { control: String($event ?? '') })"
      />
      <ListEntry
        :id="`${id}-permit-${index}`"
        label="Permit"
        clearable
        placeholder="None"
        :model-value="line.permit"
        :options="named(PERMITS, PERMIT_NAMES)"
        @update:model-value="change('hazards', index, { permit: $event })"
      />
      <NButton size="small" :aria-label="`Take out hazard line ${index + 1}`" @click="drop('hazards', index)">Take out</NButton>
    </div>
    <NButton size="small" @click="add('hazards', { hazard: '', control: '', permit: null })">Add a hazard</NButton>
  </fieldset>
</template>

<style scoped>
fieldset {
  border: 0;
  border-top: 1px solid var(--line);
  padding: 8px 0;
  margin: 0;
  min-width: 0;
}
legend {
  font-weight: 600;
  padding: 0 8px 0 0;
}
.line > .n-button {
  margin-top: 24px;
}
.line {
  display: grid;
  gap: 8px;
  align-items: start;
  margin-bottom: 8px;
}
.labour {
  grid-template-columns: minmax(140px, 2fr) 110px 130px auto;
}
/* Below the numbers: they may be many, and their names long. */
.labour .skills {
  grid-row: 2;
  grid-column: 1 / -1;
}
.parts {
  grid-template-columns: minmax(160px, 3fr) 120px auto;
}
.tools {
  grid-template-columns: minmax(120px, 1fr) minmax(140px, 1fr) auto;
}
.hazards {
  grid-template-columns: minmax(110px, 2fr) minmax(140px, 3fr) minmax(120px, 2fr) auto;
}
@media (max-width: 720px) {
  .line {
    grid-template-columns: 1fr 1fr;
  }
  .labour .skills {
    grid-row: auto;
  }
}
</style>
