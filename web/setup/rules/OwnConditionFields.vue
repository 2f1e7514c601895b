<script setup lang="ts">
import { computed } from 'vue'
import type { OwnCondition } from '#core/orders'
import type { OwnField } from '#core/own'
import { DecimalField, ListEntry, TextEntry } from '#web/kit'

/** What has to stand in a field the site has added, asked for as its shape can be asked. */
const props = defineProps<{ id: string; fields: OwnField[] }>()
const own = defineModel<OwnCondition | undefined>({ required: true })
const field = computed(() => props.fields.find((one) => one.id === own.value?.fieldId))
const set = (change: Partial<OwnCondition>) => {
  const next = { ...own.value!, ...change }
  own.value = Object.fromEntries(
    Object.entries(next).filter(([, value]) => value !== undefined && !(Array.isArray(value) && !value.length)),
  ) as unknown as OwnCondition
}
const values = computed(() => {
  if (field.value?.shape === 'flag')
    return [
      { value: '1', label: 'Yes' },
      { value: '0', label: 'No' },
    ]
  return field.value?.shape === 'choice' ? field.value.choices.map(({ key, name }) => ({ value: key, label: name })) : null
})
const FILLED = [
  { value: 'yes', label: 'Filled in' },
  { value: 'no', label: 'Empty' },
]
const filled = computed(() => (own.value?.filled === undefined ? null : own.value.filled ? 'yes' : 'no'))
const number = (value: number | string | null) => (value === null ? undefined : Number(value))
</script>

<template>
  <ListEntry
    :id="`${id}-own`"
    label="With own field"
    clearable
    placeholder="Any"
    :model-value="own?.fieldId ?? null"
    :options="fields.map((one) => ({ value: one.id, label: one.label }))"
    @update:model-value="own = $event === null ? undefined : { fieldId: Number($event) }"
  />
  <template v-if="own && field">
    <ListEntry
      :id="`${id}-own-filled`"
      :label="`${field.label} is`"
      clearable
      placeholder="Either"
      :model-value="filled"
      :options="FILLED"
      @update:model-value="set({ filled: $event === null ? undefined : $event === 'yes' })"
    />
    <ListEntry
      v-if="values"
      :id="`${id}-own-value`"
      label="And holds"
      clearable
      placeholder="Anything"
      :model-value="own.oneOf?.[0] ?? null"
      :options="values"
      @update:model-value="set({ oneOf: $event === null ? undefined : [String($event)] })"
    />
    <template v-else-if="field.shape === 'number'">
      <DecimalField
        :id="`${id}-own-from`"
        kind="quantity"
        :label="`From${field.unit ? `, ${field.unit}` : ''}`"
        :value="own.from ?? null"
        @save="set({ from: number($event) })"
      />
      <DecimalField
        :id="`${id}-own-to`"
        kind="quantity"
        :label="`Up to${field.unit ? `, ${field.unit}` : ''}`"
        :value="own.to ?? null"
        @save="set({ to: number($event) })"
      />
    </template>
    <TextEntry
      v-else-if="field.shape === 'text' || field.shape === 'link'"
      :id="`${id}-own-text`"
      label="And is just"
      placeholder="Anything"
      :model-value="own.oneOf?.[0] ?? ''"
      @update:model-value="set({ oneOf: String($event ?? '').trim() ? [String($event).trim()] : undefined })"
    />
  </template>
</template>
