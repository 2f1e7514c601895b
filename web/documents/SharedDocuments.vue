<script setup lang="ts">
import { defineAsyncComponent, ref } from 'vue'
import type { SharedDocument } from '#contract/documents'
import { DOCUMENT_KIND_NAMES } from '#core/documents'
import { RowButton, useLoading } from '#web/kit'
import { sizeSays } from './shown'
import type { ShownFile } from './shown'

/** Documents for those outside the desk, as far as they may see them; nothing is said where there are none. */
const DocumentPreview = defineAsyncComponent(() => import('./DocumentPreview.vue'))
const props = defineProps<{
  read: () => Promise<{ rows: SharedDocument[] }>
  urlOf: (fileId: number) => string
  /** Reads one that may lie on the device. */
  contentOf?: (fileId: number) => Promise<Blob>
}>()
const open = (one: SharedDocument) =>
  (shown.value = { ...one, url: props.urlOf(one.fileId), ...(props.contentOf ? { content: () => props.contentOf!(one.fileId) } : {}) })
const documents = useLoading(props.read)
void documents.load()
const shown = ref<ShownFile | null>(null)
</script>

<template>
  <section v-if="documents.value.value?.rows.length" class="card" aria-label="Documents">
    <h2>Documents</h2>
    <ul>
      <li v-for="one in documents.value.value.rows" :key="one.fileId">
        <RowButton class="line" @click="open(one)">
          <strong>{{ one.title }}</strong> <span class="soft">{{ DOCUMENT_KIND_NAMES[one.kind] }}, {{ sizeSays(one.bytes) }}</span>
        </RowButton>
      </li>
    </ul>
    <DocumentPreview v-if="shown" :file="shown" @close="shown = null" />
  </section>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
.line {
  display: block;
  width: 100%;
  min-height: 44px;
  padding: 8px 0;
  text-align: left;
}
strong {
  text-decoration: underline;
  text-underline-offset: 2px;
}
</style>
