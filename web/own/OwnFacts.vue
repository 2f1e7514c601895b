<script setup lang="ts">
import { computed, ref } from 'vue'
import { editOwn, readOwn } from '#contract/own'
import type { OwnEdit, OwnSheet } from '#contract/own'
import { ownName } from '#core/own'
import type { OwnKind } from '#core/own'
import { ProblemNote } from '#web/kit'
import { ConflictBox, provideSheet, SheetFact, useSheet } from '#web/sheets'
import { ownSheetField } from './sheetField'

/** What stands in the fields the site has added: read and changed like any other fact. */
const props = defineProps<{ kind: OwnKind; id: number }>()
const { sheet, save, saveFrom, sentenceAt, conflict, settle, follow } = useSheet<OwnSheet, OwnEdit, { kind: OwnKind }>(props.id, readOwn, editOwn, {
  kind: props.kind,
})
follow((change) => {
  if (props.kind === 'orders') return change.orderId === props.id
  if (props.kind === 'requests') return change.requestId === props.id
  return change.register === props.kind && change.recordId === props.id
})
const it = computed(() => sheet.value.value!)
provideSheet<OwnSheet, Record<string, unknown>>({
  sheet: it,
  whyNot: () => it.value.whyNot ?? undefined,
  save: (fields) => save(fields as never),
  saveFrom,
  sentenceAt,
  reload: sheet.load,
  begun: ref(null),
})
const fields = computed(() => it.value.fields.map(ownSheetField))
const names = computed(() => Object.fromEntries(it.value.fields.map((field) => [ownName(field.id), field.label])))
function showValue(name: string, value: unknown): string {
  if (value === null) return 'nothing'
  const field = it.value.fields.find((one) => ownName(one.id) === name)
  if (field?.shape === 'choice') return field.choices.find((choice) => choice.key === value)?.name ?? String(value)
  if (field?.shape === 'flag') return value === 1 ? 'Yes' : 'No'
  if (field?.shape === 'person') return value === it.value[name] ? (it.value.names[name] ?? '') : 'whom you chose'
  return String(value)
}
</script>

<template>
  <ProblemNote v-if="sheet.problem.value && !sheet.value.value" :problem="sheet.problem.value" @retry="sheet.load" />
  <span v-else-if="!sheet.value.value" class="bones" role="status" aria-label="Loading" />
  <template v-else>
    <dl class="facts">
      <SheetFact v-for="field in fields" :key="field.name" :field="field" />
    </dl>
    <ConflictBox v-if="conflict" :conflict="conflict" :names="names" :show="showValue" @settle="settle" />
  </template>
</template>

<style scoped>
.bones {
  height: 44px;
}
</style>
