<script setup lang="ts">
import { computed } from 'vue'
import { readTree, readTreePath } from '#contract/portraits'
import { ProblemNote, RecordLink, useRead } from '#web/kit'
import { useOpenSheet } from '#web/sheets'
import type { AnyRecord } from '#contract/portraits'
import TreeBadge from './TreeBadge.vue'
import { recordOf } from './tree'

/** What it stands in, and what stands in it: each with the open and late work of its branch. */
const { sheet: it } = useOpenSheet<AnyRecord>()
const under = computed(() => (it.value.register === 'places' ? ('place' as const) : ('asset' as const)))
const moved = (change: { register: string | null; kind: string }) => change.register === it.value.register
const path = useRead(readTreePath, () => ({ under: under.value, id: it.value.id }), { holds: true, touchedBy: moved })
const below = useRead(readTree, () => ({ under: under.value, id: it.value.id }), { holds: true, touchedBy: moved })
const above = computed(() => path.value.value?.nodes.slice(0, -1) ?? [])
</script>

<template>
  <ProblemNote v-if="path.problem.value" :problem="path.problem.value" @retry="path.load" />
  <template v-else>
    <ol v-if="above.length" class="above" aria-label="It stands in">
      <li v-for="node in above" :key="node.type + node.id">
        <RecordLink :record="recordOf(node)"
          ><span class="mono">{{ node.code }}</span> {{ node.name }}</RecordLink
        >
      </li>
    </ol>
    <ul v-if="below.value.value?.rows.length" class="below" :aria-label="under === 'place' ? 'What stands in it' : 'Its parts'">
      <li v-for="node in below.value.value.rows" :key="node.type + node.id">
        <RecordLink :record="recordOf(node)"
          ><span class="mono">{{ node.code }}</span> {{ node.name }}</RecordLink
        >
        <TreeBadge :node="node" />
      </li>
    </ul>
    <p v-else-if="below.value.value" class="soft">{{ under === 'place' ? 'Nothing stands in it.' : 'It has no parts of its own.' }}</p>
    <p v-if="below.value.value?.next" class="soft">The first 200 of it. All of it is in the tree of the register.</p>
  </template>
</template>

<style scoped>
ol,
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
.above {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 4px;
  font-size: 13px;
}
.above li:not(:last-child)::after {
  content: ' ›';
  color: var(--ink-soft);
}
.below {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(220px, 1fr));
  gap: 2px 20px;
}
.below li {
  display: flex;
  gap: 8px;
  justify-content: space-between;
}
</style>
