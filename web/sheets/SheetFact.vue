<script setup lang="ts" generic="Sheet extends object">
import { computed, ref } from 'vue'
import { FactRow, typedBefore, writtenAs, writtenDay } from '#web/kit'
import { formatMinor } from '#core/kit'
import SheetInput from './SheetInput.vue'
import { useOpenSheet, valueOf } from './openSheet'
import type { SheetField } from './openSheet'

/** A field of the open Sheet: read as a fact that turns into its field when pressed; or, `open`, the field at once. */
const props = defineProps<{ field: SheetField<Sheet>; open?: boolean }>()
const { sheet, whyNot, sentenceAt } = useOpenSheet<Sheet>()
const row = ref<{ close: () => void } | null>(null)
const leads = computed(() => props.field.leads?.(sheet.value) ?? null)
const reason = computed(() => whyNot(props.field.name))
const says = computed(() => {
  const { field } = props
  if (field.says) return field.says(sheet.value)
  const value = valueOf(field, sheet.value)
  if (value === null) return null
  if (field.kind === 'money') return formatMinor(Number(value))
  if (field.kind === 'day') return writtenDay(String(value))
  if (field.kind === 'percent') return `${writtenAs('percent', value)} %`
  if (field.kind === 'number') return [writtenAs('quantity', value), field.unit].filter(Boolean).join(' ')
  if (field.kind !== 'pick') return [String(value), field.unit].filter(Boolean).join(' ')
  return field.current?.(sheet.value)?.label ?? field.choices?.().find((one) => one.value === value)?.label ?? '…'
})
</script>

<template>
  <SheetInput v-if="open && !reason" :class="{ 'whole-row': field.wide }" :field="field" />
  <FactRow
    v-else
    ref="row"
    :name="field.name"
    :label="field.label"
    :says="says"
    :why-not="reason"
    :problem="sentenceAt(field.name)"
    :wide="field.wide"
    :mono="field.mono || field.kind === 'money'"
    :begun="typedBefore(field.name)"
    :leads="leads"
    :href="field.href?.(sheet) ?? null"
  >
    <SheetInput :field="field" @kept="row?.close()" />
  </FactRow>
</template>

<style>
.whole-row {
  grid-column: 1 / -1;
}
</style>
