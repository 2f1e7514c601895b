<script setup lang="ts">
import { computed } from 'vue'
import type { FieldValue, RegisterField } from '#core/registers'
import { DecimalField, ListEntry, MomentEntry, NumberEntry, PickField, TextEntry } from '#web/kit'
import { choiceLabel, finderOf } from './recordFields'

/** One field of a record that is being entered. */
const props = defineProps<{ id: string; field: RegisterField; problem?: string; said?: string }>()
const value = defineModel<FieldValue>({ required: true })
const emit = defineEmits<{ named: [label: string] }>()
const label = computed(() => (props.field.needed ? `${props.field.label} (needed)` : props.field.label))
const text = computed({ get: () => String(value.value ?? ''), set: (now) => (value.value = now || null) })
const amount = computed({ get: () => (value.value === null ? null : Number(value.value)), set: (now) => (value.value = now) })
const finder = props.field.kind === 'named' ? finderOf(props.field.of) : {}
const current = computed(() => (typeof value.value === 'number' && props.said ? { value: value.value, label: props.said } : null))
function pick(picked: number | string | null, name: string): void {
  value.value = picked
  emit('named', name)
}
</script>

<template>
  <PickField
    v-if="field.kind === 'named'"
    :id="id"
    :label="label"
    :value="value"
    :find="finder.find"
    :choices="finder.choices?.()"
    :current="current"
    :clearable="!field.needed"
    :problem="problem"
    @pick="pick"
  />
  <ListEntry
    v-else-if="field.kind === 'choice'"
    :id="id"
    v-model="value"
    :label="label"
    :options="Object.keys(field.choices).map((one) => ({ value: one, label: choiceLabel(field.kind === 'choice' ? field.choices : {}, one) }))"
    :clearable="!field.needed"
    :problem="problem"
  />
  <MomentEntry v-else-if="field.kind === 'day'" :id="id" v-model="text" day :label="label" :problem="problem" />
  <NumberEntry
    v-else-if="field.kind === 'count'"
    :id="id"
    v-model="amount"
    :label="label"
    :least="0"
    :most="field.most"
    :unit="field.unit"
    :problem="problem"
  />
  <DecimalField
    v-else-if="field.kind === 'money' || field.kind === 'percent'"
    :id="id"
    :kind="field.kind"
    :label="label"
    :value="value"
    :problem="problem"
    @save="(now) => (value = now)"
  />
  <TextEntry
    v-else
    :id="id"
    v-model="text"
    :label="label"
    :long="field.kind === 'text'"
    :kind="field.kind === 'mail' ? 'email' : undefined"
    :max="'most' in field ? field.most : 190"
    :mono="field.mono"
    :problem="problem"
  />
</template>
