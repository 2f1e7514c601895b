<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { ref } from 'vue'
import { listDocumentsOf } from '#contract/documents'
import type { LiveChange } from '#contract/insight'
import type { ListKind } from '#core/lists'
import { LoadedPart, useRead } from '#web/kit'
import DocumentForm from './DocumentForm.vue'
import DocumentList from './DocumentList.vue'

/** The documents of what is open. */
const props = defineProps<{ on: ListKind; id: number }>()
const isOurs = (change: LiveChange) =>
  props.on === 'orders'
    ? change.orderId === props.id
    : props.on === 'requests'
      ? change.requestId === props.id
      : change.register === props.on && change.recordId === props.id
const read = useRead(listDocumentsOf, () => ({ on: props.on, id: props.id }), {
  holds: true,
  touchedBy: (change) => change.kind.startsWith('document.') && isOurs(change),
})
const adding = ref(false)
function kept(): void {
  adding.value = false
  void read.load()
}
</script>

<template>
  <LoadedPart :part="read">
    <DocumentList v-if="read.value.value!.rows.length" :rows="read.value.value!.rows" @changed="read.load" />
    <p v-else class="soft">No documents yet.</p>
    <p v-if="read.value.value!.mayAdd" class="add"><NButton size="small" @click="adding = true">Add a document</NButton></p>
    <DocumentForm v-if="adding" :on="on" :record-id="id" @close="adding = false" @kept="kept" />
  </LoadedPart>
</template>

<style scoped>
.add {
  margin-top: 8px;
}
</style>
