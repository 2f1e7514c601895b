<script setup lang="ts" generic="Sheet extends object">
import { computed } from 'vue'
import { DecimalField, MoneyField, PickField, TextField } from '#web/kit'
import CountInput from './CountInput.vue'
import DayInput from './DayInput.vue'
import { useOpenSheet, valueOf } from './openSheet'
import type { SheetField } from './openSheet'

/** The field of the open Sheet in which something is chosen or typed; it keeps itself. */
const props = defineProps<{ field: SheetField<Sheet> }>()
const emit = defineEmits<{ kept: [] }>()
const { sheet, save, saveFrom, sentenceAt } = useOpenSheet<Sheet>()
const value = computed(() => valueOf(props.field, sheet.value))
const amount = computed(() => value.value as number | null)
const text = computed(() => value.value as string | null)
const problem = computed(() => sentenceAt(props.field.name))
const find = computed(() => props.field.find && ((text: string) => props.field.find!(sheet.value, text)))
const keep = (now: unknown, base: unknown) => void saveFrom(props.field.name, now, base)
function pick(now: number | string | null): void {
  emit('kept')
  if (props.field.pick) props.field.pick(now)
  else void save({ [props.field.name]: now })
}
</script>

<template>
  <div v-if="field.kind === 'pick' && field.beside" class="with-beside">
    <PickField
      :id="`f-${field.name}`"
      :label="field.label"
      :value="value"
      :find="find"
      :current="field.current?.(sheet)"
      :clearable="field.clearable"
      :problem="problem"
      @pick="pick"
    />
    <component :is="field.beside.component" :of="field.beside.of" :near="field.beside.near(sheet)" @pick="pick" />
  </div>
  <PickField
    v-else-if="field.kind === 'pick'"
    :id="`f-${field.name}`"
    :label="field.label"
    :value="value"
    :choices="field.choices?.()"
    :find="find"
    :current="field.current?.(sheet)"
    :clearable="field.clearable"
    :problem="problem"
    @pick="pick"
  />
  <MoneyField v-else-if="field.kind === 'money'" :name="field.name" :label="field.label" :value="amount" :problem="problem" @save="keep" />
  <DecimalField
    v-else-if="field.kind === 'percent' || field.kind === 'number'"
    :id="`f-${field.name}`"
    :kind="field.kind === 'percent' ? 'percent' : 'quantity'"
    :signed="field.kind === 'number'"
    :label="field.label"
    :value="amount"
    :problem="problem"
    @save="keep"
  />
  <DayInput v-else-if="field.kind === 'day'" :id="`f-${field.name}`" :label="field.label" :value="text" :problem="problem" @save="keep" />
  <CountInput
    v-else-if="field.kind === 'count'"
    :id="`f-${field.name}`"
    :label="field.label"
    :value="amount"
    :unit="field.unit"
    :most="field.max"
    :problem="problem"
    @save="keep"
  />
  <TextField
    v-else
    :name="field.name"
    :label="field.label"
    :value="text"
    :long="field.kind === 'text'"
    :max="field.max"
    :hint="field.hint?.(sheet)"
    :problem="problem"
    @save="keep"
  />
</template>

<style scoped>
.with-beside {
  display: flex;
  gap: 6px;
  align-items: end;
}
.with-beside > :first-child {
  flex: 1;
  min-width: 0;
}
</style>
