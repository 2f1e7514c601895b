<script setup lang="ts">
import { computed } from 'vue'
import { warrantyHeed } from '#core/assets'
import type { AssetFields } from '#core/assets'
import { serverNow, toLocalField, writtenDay } from '#web/kit'
import { SheetFact, useOpenSheet } from '#web/sheets'
import { KINDS } from '#contract/portraits'
import type { AnyRecord } from '#contract/portraits'
import { recordField } from './recordFields'

/** What is kept of the record, under a heading each; pressed, a value turns into its field. */
const { sheet: it } = useOpenSheet<AnyRecord>()
const { fields } = KINDS[it.value.register]
const groups = computed(() => {
  const names = Object.keys(fields).filter((name) => name in it.value)
  const heads = [...new Set(names.map((name) => fields[name]!.under))]
  return heads.map((head) => ({ head, fields: names.filter((name) => fields[name]!.under === head).map((name) => sheetFields[name]!) }))
})
const sheetFields = Object.fromEntries(Object.entries(fields).map(([name, field]) => [name, recordField(name, field)]))
const heed = computed(() =>
  it.value.register === 'assets' ? warrantyHeed(it.value as unknown as AssetFields, toLocalField(serverNow()).slice(0, 10), writtenDay) : null,
)
</script>

<template>
  <p v-if="heed" class="heed">{{ heed }}</p>
  <div v-for="group in groups" :key="group.head" class="group">
    <h3 v-if="groups.length > 1">{{ group.head }}</h3>
    <dl class="facts">
      <SheetFact v-for="field in group.fields" :key="field.name" :field="field" />
    </dl>
  </div>
</template>

<style scoped>
h3 {
  font-size: 13px;
  font-weight: 600;
  margin: 0 0 2px;
}
.heed {
  color: var(--buoy);
}
</style>
