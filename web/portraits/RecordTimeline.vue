<script setup lang="ts">
import { computed } from 'vue'
import { readPortraitTimeline } from '#contract/portraits'
import { ProblemNote, useRead } from '#web/kit'
import { TimelineList, useOpenSheet } from '#web/sheets'
import { KINDS } from '#contract/portraits'
import type { AnyRecord } from '#contract/portraits'

/** What was changed of it, by whom, newest first. */
const { sheet: it } = useOpenSheet<AnyRecord>()
const read = useRead(readPortraitTimeline, () => ({ register: it.value.register, id: it.value.id }), {
  anew: true,
  touchedBy: (change) => change.register === it.value.register && change.recordId === it.value.id,
})
const fields = computed(() => KINDS[it.value.register].fields)
const names = computed(() => Object.fromEntries(Object.entries(fields.value).map(([name, field]) => [name, field.label])))
</script>

<template>
  <ProblemNote v-if="read.problem.value" :problem="read.problem.value" @retry="read.load" />
  <span v-else-if="!read.value.value" class="bones" role="status" aria-label="Loading" />
  <p v-else-if="!read.value.value.entries.length" class="soft">Nobody has changed it since it was taken over.</p>
  <TimelineList v-else :entries="read.value.value.entries" :names="names" />
</template>
