<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, ref, shallowRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { listDocuments } from '#contract/documents'
import type { DocumentRow } from '#contract/documents'
import { DOCUMENT_KIND_NAMES, DOCUMENT_KINDS, DOCUMENT_STANDING_NAMES, DOCUMENT_STANDINGS } from '#core/documents'
import type { DocumentKind, DocumentStanding } from '#core/documents'
import { call, ListEntry, LoadedPart, named, TextEntry, useRead, useSoon } from '#web/kit'
import DocumentList from './DocumentList.vue'

/** Documents of everything that is looked after: what ends first comes first. */
const route = useRoute()
const router = useRouter()
const one = <Word extends string>(words: readonly Word[], asked: unknown) => words.find((word) => word === asked)
const kind = computed(() => one<DocumentKind>(DOCUMENT_KINDS, route.query.kind))
const standing = computed(() => one<DocumentStanding>(DOCUMENT_STANDINGS, route.query.standing))
const words = computed(() => (typeof route.query.words === 'string' ? route.query.words : ''))
const set = (change: Record<string, string | undefined>) => void router.replace({ query: { ...route.query, ...change } })
const text = ref(words.value)
watch(
  text,
  useSoon(() => set({ words: text.value || undefined }), 200),
)
const asked = computed(() => ({ kind: kind.value, standing: standing.value, q: words.value || undefined }))
const read = useRead(listDocuments, asked, { holds: true, touchedBy: (change) => change.kind.startsWith('document.') })
const more = shallowRef<DocumentRow[]>([])
const next = ref<string | null>(null)
watch(
  () => read.value.value,
  (page) => {
    more.value = []
    next.value = page?.next ?? null
  },
  { immediate: true },
)
async function readOn(): Promise<void> {
  const page = await call(listDocuments, { ...asked.value, after: next.value! })
  more.value = [...more.value, ...page.rows]
  next.value = page.next
}
const rows = computed(() => [...(read.value.value?.rows ?? []), ...more.value])
const narrowed = computed(() => !!(kind.value || standing.value || words.value))
</script>

<template>
  <div class="page">
    <header>
      <h1>Documents</h1>
      <TextEntry
        id="documents-find"
        v-model="text"
        class="find"
        kind="search"
        label-hidden
        label="Words in a title or inside"
        placeholder="Words in a title or inside"
      />
      <ListEntry
        id="documents-kind"
        class="pick"
        label="Kind"
        label-hidden
        clearable
        placeholder="Any kind"
        :model-value="kind ?? null"
        :options="named(DOCUMENT_KINDS, DOCUMENT_KIND_NAMES)"
        @update:model-value="set({ kind: $event ?? undefined })"
      />
      <ListEntry
        id="documents-standing"
        class="pick"
        label="Validity"
        label-hidden
        clearable
        placeholder="Valid or not"
        :model-value="standing ?? null"
        :options="named(DOCUMENT_STANDINGS, DOCUMENT_STANDING_NAMES)"
        @update:model-value="set({ standing: $event ?? undefined })"
      />
    </header>
    <main>
      <LoadedPart :part="read">
        <DocumentList v-if="rows.length" of-many :rows="rows" @changed="read.load" />
        <p v-else class="soft">
          {{ narrowed ? 'No document is like that.' : 'There are no documents yet. They are added on the Portrait of what they are of.' }}
          <NButton v-if="narrowed" size="small" @click="((text = ''), router.replace({ query: {} }))">Show all</NButton>
        </p>
        <p v-if="next" class="on"><NButton @click="readOn">Show more</NButton></p>
      </LoadedPart>
    </main>
  </div>
</template>

<style scoped>
.page {
  height: 100%;
  display: flex;
  flex-direction: column;
  background: var(--sheet);
}
header {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 12px;
  align-items: center;
  padding: 10px 16px;
  border-bottom: 1px solid var(--line);
}
.find {
  width: 280px;
}
.pick {
  width: 180px;
}
main {
  flex: 1;
  min-height: 0;
  overflow-y: auto;
  padding: 4px 16px 24px;
}
.on {
  padding-top: 12px;
}
</style>
