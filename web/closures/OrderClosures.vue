<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { ref } from 'vue'
import { readOrderClosures } from '#contract/closures'
import { LoadedPart, useRead } from '#web/kit'
import ClosureForm from './ClosureForm.vue'
import ClosureRow from './ClosureRow.vue'

/** Spaces that are out of use while the work is done. */
const props = defineProps<{ orderId: number; summary: string }>()
const read = useRead(readOrderClosures, () => ({ orderId: props.orderId }), {
  holds: true,
  touchedBy: ({ orderId, kind }) => orderId === props.orderId && (kind.startsWith('closure.') || kind.startsWith('order.') || kind.startsWith('window.')),
})
const closing = ref(false)
function done(): void {
  closing.value = false
  void read.load()
}
</script>

<template>
  <div id="s-closure" class="closures" role="group" aria-label="Out of use">
    <h3>Out of use</h3>
    <LoadedPart :part="read">
      <ul v-if="read.value.value!.rows.length">
        <ClosureRow
          v-for="row in read.value.value!.rows"
          :key="`${row.id}-${row.version}`"
          :closure="row"
          :closures="read.value.value!"
          :summary="summary"
          @changed="read.load"
        />
      </ul>
      <p v-else-if="!closing" class="soft">No space is out of use for it.</p>
      <ClosureForm v-if="closing" :order-id="orderId" :closures="read.value.value!" :summary="summary" @leave="closing = false" @done="done" />
      <p v-else-if="read.value.value!.mayClose"><NButton size="small" @click="closing = true">Take a space out of use</NButton></p>
    </LoadedPart>
  </div>
</template>

<style scoped>
.closures {
  margin-top: 12px;
}
ul {
  margin: 0;
  padding: 0;
}
p {
  margin: 4px 0;
}
</style>
