<script setup lang="ts">
import type { LiveChange } from '#contract/insight'
import type { Endpoint } from '#contract/kit'
import type { TimelineEntry } from '#contract/requests'
import { ProblemNote, useRead } from '#web/kit'
import TimelineList from './TimelineList.vue'

/** What happened, read by itself, and again with whatever happens to it. */
const props = defineProps<{ endpoint: Endpoint<{ id: number }, { entries: TimelineEntry[] }>; id: number; touchedBy: (change: LiveChange) => boolean }>()

const read = useRead(props.endpoint, () => ({ id: props.id }), { anew: true, touchedBy: (change) => props.touchedBy(change) })
</script>

<template>
  <ProblemNote v-if="read.problem.value" :problem="read.problem.value" @retry="read.load" />
  <TimelineList v-else-if="read.value.value" :entries="read.value.value.entries" />
  <span v-else class="bones" role="status" aria-label="Loading" />
</template>

<style scoped>
.bones {
  height: 120px;
}
</style>
