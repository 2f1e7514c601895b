<script setup lang="ts">
import { listPlaceClosures } from '#contract/closures'
import type { AnyRecord } from '#contract/portraits'
import { LoadedPart, useRead } from '#web/kit'
import { useOpenSheet } from '#web/sheets'
import ClosureRow from './ClosureRow.vue'

/** When a space is and was out of use, and for which orders. */
const { sheet: it } = useOpenSheet<AnyRecord>()
const read = useRead(listPlaceClosures, () => ({ placeId: it.value.id }), { holds: true, touchedBy: ({ kind }) => kind.startsWith('closure.') })
</script>

<template>
  <LoadedPart :part="read">
    <ul v-if="read.value.value!.rows.length" aria-label="Out of use">
      <ClosureRow v-for="row in read.value.value!.rows" :key="`${row.id}-${row.version}`" :closure="row" of-place @changed="read.load" />
    </ul>
    <p v-else class="soft">It was never out of use. It is taken out of use on the Sheet of the order that needs it.</p>
  </LoadedPart>
</template>

<style scoped>
ul {
  margin: 0;
  padding: 0;
}
</style>
