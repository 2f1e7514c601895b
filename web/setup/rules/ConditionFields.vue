<script setup lang="ts">
import { NSelect } from 'naive-ui/es/select'
import { computed } from 'vue'
import { ORDER_KIND_NAMES, ORDER_KINDS, ORDER_STATE_NAMES, ORDER_STATES } from '#core/orders'
import type { OrderCondition, RuleNames } from '#core/orders'
import type { OwnField } from '#core/own'
import { PRIORITIES, PRIORITY_NAMES } from '#core/requests'
import { NumberEntry, PickField, MoneyField, placeChoices, useVocabulary } from '#web/kit'
import OwnConditionFields from './OwnConditionFields.vue'
import { rememberPlace } from './ruleNames'

/** For which orders a rule holds. What is left empty does not matter. */
const props = defineProps<{ id: string; names: RuleNames; own: OwnField[]; withoutStates?: boolean }>()
const when = defineModel<OrderCondition>({ required: true })
const words = useVocabulary()
const set = (change: Partial<OrderCondition>) => {
  const next = { ...when.value, ...change }
  when.value = Object.fromEntries(Object.entries(next).filter(([, value]) => value !== undefined && !(Array.isArray(value) && !value.length)))
}
const options = <T extends string>(list: readonly T[], names: Record<T, string>) => list.map((value) => ({ value, label: names[value] }))
const many = computed(() => [
  ...(props.withoutStates ? [] : [{ key: 'states' as const, label: 'In state', options: options(ORDER_STATES, ORDER_STATE_NAMES) }]),
  { key: 'kinds' as const, label: 'Of kind', options: options(ORDER_KINDS, ORDER_KIND_NAMES) },
  { key: 'priorities' as const, label: 'Of priority', options: options(PRIORITIES, PRIORITY_NAMES) },
  { key: 'payerIds' as const, label: 'Paid by', options: words.choices((all) => all.payers) },
])
function pickPlace(id: number | string | null): void {
  set({ placeId: id === null ? undefined : Number(id) })
}
async function findPlaces(q: string) {
  const rows = await placeChoices(q)
  for (const row of rows) rememberPlace(Number(row.value), row.label.split(',')[0]!)
  return rows
}
</script>

<template>
  <div class="when">
    <div v-for="one in many" :key="one.key" class="field">
      <label :for="`${id}-${one.key}`">{{ one.label }}</label>
      <NSelect
        multiple
        filterable
        clearable
        placeholder="Any"
        :value="(when[one.key] as (string | number)[] | undefined) ?? []"
        :options="one.options"
        :input-props="{ id: `${id}-${one.key}`, 'aria-label': one.label, autocomplete: 'off' }"
        @update:value="(values: (string | number)[]) => set({ [one.key]: values })"
      />
    </div>
    <PickField
      :id="`${id}-place`"
      label="In place"
      placeholder="Any"
      :value="when.placeId ?? null"
      :current="when.placeId ? { value: when.placeId, label: names.place(when.placeId) } : null"
      :find="findPlaces"
      clearable
      @pick="pickPlace"
    />
    <MoneyField :name="`${id}-amount`" label="Estimate from" :value="when.amountFromMinor ?? null" @save="set({ amountFromMinor: $event ?? undefined })" />
    <NumberEntry
      :id="`${id}-age`"
      label="Older than, days"
      :least="0"
      :most="3650"
      :model-value="when.olderThanDays ?? null"
      @update:model-value="set({ olderThanDays: $event ?? undefined })"
    />
    <OwnConditionFields v-if="own.length" :id="id" :fields="own" :model-value="when.own" @update:model-value="set({ own: $event })" />
  </div>
</template>

<style scoped>
.when {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(200px, 1fr));
  gap: 8px 12px;
}
</style>
