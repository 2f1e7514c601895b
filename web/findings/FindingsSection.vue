<script setup lang="ts">
import { computed } from 'vue'
import { readOrderFindings } from '#contract/findings'
import type { OrderSheet } from '#contract/orders'
import { LoadedPart, useRead } from '#web/kit'
import { useOpenSheet } from '#web/sheets'
import FindingRows from './FindingRows.vue'

/** What was found on the order, and what was found elsewhere that it is to put right. */
const { sheet, reload } = useOpenSheet<OrderSheet>()
const read = useRead(readOrderFindings, () => ({ orderId: sheet.value.id }), {
  holds: true,
  touchedBy: ({ orderId, kind }) => orderId === sheet.value.id || kind.startsWith('finding.') || kind.startsWith('order.'),
})
const found = computed(() => read.value.value?.found ?? [])
const answers = computed(() => read.value.value?.answers ?? [])
const changed = () => Promise.all([read.load(), reload()])
</script>

<template>
  <LoadedPart :part="read">
    <FindingRows v-if="found.length" label="Found here" :rows="found" @changed="changed" />
    <template v-if="answers.length">
      <h3>To put right, found elsewhere</h3>
      <FindingRows label="To put right" named :rows="answers" @changed="changed" />
    </template>
  </LoadedPart>
</template>

<style scoped>
h3 {
  margin: 6px 0 0;
  font-size: 14px;
}
</style>
