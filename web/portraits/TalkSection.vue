<script setup lang="ts">
import { RouterLink } from 'vue-router'
import { readPortraitTalk } from '#contract/portraits'
import type { AnyRecord } from '#contract/portraits'
import { LoadedPart, shortTime, useRead } from '#web/kit'
import { useOpenSheet } from '#web/sheets'

/** What was said about it last; each leads to its conversation. */
const { sheet: it } = useOpenSheet<AnyRecord>()
const read = useRead(readPortraitTalk, () => ({ register: it.value.register, id: it.value.id }), {
  holds: true,
  touchedBy: ({ requestId }) => requestId !== null,
})
</script>

<template>
  <LoadedPart :part="read">
    <p v-if="!read.value.value!.rows.length" class="soft">Nothing was said about it yet.</p>
    <ul v-else class="talk" aria-label="Conversations">
      <li v-for="row in read.value.value!.rows" :key="row.id">
        <p class="soft">
          <span class="mono">{{ shortTime(row.at) }}</span> {{ row.from }}, on
          <RouterLink :to="`/desk/triage/request/${row.requestId}`"
            ><span class="mono">{{ row.number }}</span> {{ row.summary }}</RouterLink
          >
        </p>
        <p class="said">{{ row.text }}</p>
      </li>
    </ul>
  </LoadedPart>
</template>

<style scoped>
.talk {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 8px;
}
.said {
  white-space: pre-line;
  overflow-wrap: anywhere;
}
</style>
