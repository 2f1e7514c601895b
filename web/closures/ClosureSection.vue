<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { ref } from 'vue'
import { readOrderClosures } from '#contract/closures'
import type { OrderSheet } from '#contract/orders'
import { LoadedPart, useRead } from '#web/kit'
import { useOpenSheet } from '#web/sheets'
import ClosureForm from './ClosureForm.vue'
import ClosureRow from './ClosureRow.vue'

/** Spaces that are out of use while the work is done. */
const { sheet: it } = useOpenSheet<OrderSheet>()
const read = useRead(readOrderClosures, () => ({ orderId: it.value.id }), {
  holds: true,
  touchedBy: ({ orderId, kind }) => orderId === it.value.id && (kind.startsWith('closure.') || kind.startsWith('order.') || kind.startsWith('window.')),
})
const closing = ref(false)
function done(): void {
  closing.value = false
  void read.load()
}
</script>

<template>
  <div id="s-closure">
    <LoadedPart :part="read">
      <ul v-if="read.value.value!.rows.length" aria-label="Out of use">
        <ClosureRow
          v-for="row in read.value.value!.rows"
          :key="`${row.id}-${row.version}`"
          :closure="row"
          :closures="read.value.value!"
          :summary="it.summary"
          @changed="read.load"
        />
      </ul>
      <p v-else-if="!closing" class="soft">No space is out of use for it.</p>
      <ClosureForm v-if="closing" :order-id="it.id" :closures="read.value.value!" :summary="it.summary" @leave="closing = false" @done="done" />
      <p v-else-if="read.value.value!.mayClose"><NButton size="small" @click="closing = true">Take a space out of use</NButton></p>
    </LoadedPart>
  </div>
</template>

<style scoped>
ul {
  margin: 0;
  padding: 0;
}
p {
  margin: 4px 0;
}
</style>
