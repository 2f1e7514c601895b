<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { ref } from 'vue'
import { readMethodContent } from '#contract/methods'
import type { AnyRecord } from '#contract/portraits'
import { dayOf, ListEntry, LoadedPart, useRead } from '#web/kit'
import { useOpenSheet } from '#web/sheets'
import MethodEditor from './MethodEditor.vue'
import NeedsList from './NeedsList.vue'
import StepsRead from './StepsRead.vue'

/** What a method says is done: read first, written anew as a further version. */
const { sheet: it } = useOpenSheet<AnyRecord>()
const edition = ref<number | null>(null)
const read = useRead(readMethodContent, () => ({ id: it.value.id, ...(edition.value ? { edition: edition.value } : {}) }), {
  holds: true,
  touchedBy: ({ kind, recordId }) => kind === 'method.edition' && recordId === it.value.id,
})
const writing = ref(false)
function written(): void {
  writing.value = false
  edition.value = null
  void read.load()
}
</script>

<template>
  <LoadedPart :part="read">
    <MethodEditor v-if="writing" :method-id="it.id" :edition="read.value.value!" @leave="writing = false" @written="written" />
    <template v-else>
      <div class="head">
        <ListEntry
          v-if="read.value.value!.editions.length > 1"
          id="m-edition"
          label="Version"
          inline
          small
          :model-value="read.value.value!.edition"
          :options="
            read.value.value!.editions.map((one) => ({ value: one.edition, label: `${one.edition}, ${dayOf(one.at)}${one.note ? `: ${one.note}` : ''}` }))
          "
          @update:model-value="edition = $event === null ? null : Number($event)"
        />
        <p v-else-if="read.value.value!.at" class="soft">
          Version {{ read.value.value!.edition }}, {{ dayOf(read.value.value!.at) }}, {{ read.value.value!.by }}
        </p>
        <NButton v-if="read.value.value!.mayEdit" size="small" @click="writing = true">{{ read.value.value!.edition ? 'Write it anew' : 'Write it' }}</NButton>
      </div>
      <p v-if="!read.value.value!.edition" class="soft">Nothing is written yet. Once it says what is done, it is offered where it fits.</p>
      <template v-else>
        <StepsRead :steps="read.value.value!.content.steps" />
        <NeedsList :lines="read.value.value!.content" :names="read.value.value!.names" />
      </template>
    </template>
  </LoadedPart>
</template>

<style scoped>
.head {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: center;
  gap: 8px;
  margin-bottom: 8px;
}
.head p {
  margin: 0;
}
</style>
