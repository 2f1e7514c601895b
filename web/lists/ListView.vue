<script setup lang="ts">
import type { ListKind } from '#core/lists'
import { useOwnFields } from '#web/own'
import ListBoard from './ListBoard.vue'
import type { Line } from './useList'

/** A list, once it is known what can be asked of it: its address may name fields the site has added. */
defineProps<{ kind: ListKind }>()
defineSlots<{ marked: (props: { lines: Line[] }) => unknown }>()
const own = useOwnFields()
void own.ensure()
</script>

<template>
  <ListBoard v-if="own.known" :kind="kind">
    <template #marked="{ lines }"><slot name="marked" :lines="lines" /></template>
  </ListBoard>
  <div v-else class="bones wait" role="status" aria-label="Loading" />
</template>

<style scoped>
.wait {
  height: 240px;
}
</style>
