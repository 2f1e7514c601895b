<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { RouterLink } from 'vue-router'
import { listGroups } from '#contract/lists'
import type { ListGroup } from '#contract/lists'
import { formatMinor } from '#core/kit'
import { askedField, formatAsk, parseClause, withClause } from '#core/lists'
import type { ListAsk } from '#core/lists'
import { RowButton, call, onLiveChange, ProblemNote, useLoading, useSoon } from '#web/kit'
import ListTable from './ListTable.vue'
import { readLines } from './useList'
import type { Line } from './useList'
import { baseOf } from './useViews'

/** Rows brought together by a field: how many, how many past their target; each opens to its rows. */
const props = defineProps<{ ask: ListAsk; open: number | null }>()
const emit = defineEmits<{ show: [Line]; sort: [string]; peek: [number | null] }>()
const MOST = 50
const groups = useLoading(() => call(listGroups, { kind: props.ask.kind, ask: formatAsk(props.ask) }).then((answer) => answer.rows))
const opened = ref<string | null>(null)
const rows = ref<Line[]>([])
const nothing = { marked: new Set<number>(), changed: new Map<number, string>() }
const total = computed(() => groups.value.value?.reduce((sum, group) => sum + group.count, 0) ?? 0)

const within = (group: ListGroup): ListAsk => ({ ...withClause(props.ask, parseClause(askedField(props.ask, props.ask.group!), group.value)!), group: null })
const addressOf = (group: ListGroup) => `${baseOf(props.ask.kind)}?${formatAsk(within(group))}`

async function toggle(group: ListGroup): Promise<void> {
  opened.value = opened.value === group.value ? null : group.value
  if (opened.value) await readRows(group)
}
async function readRows(group: ListGroup): Promise<void> {
  const answer = await readLines(props.ask, { ask: formatAsk({ ...within(group), size: '50' }), limit: MOST })
  if (opened.value === group.value) rows.value = answer.rows
}
watch(
  () => formatAsk(props.ask),
  () => {
    opened.value = null
    groups.value.value = null
    void groups.load()
  },
  { immediate: true },
)
onLiveChange(
  useSoon(async () => {
    await groups.load()
    const group = groups.value.value?.find((one) => one.value === opened.value)
    if (group) await readRows(group)
  }, 300),
)
</script>

<template>
  <ProblemNote v-if="groups.problem.value" :problem="groups.problem.value" @retry="groups.load" />
  <div v-else-if="!groups.value.value" class="groups" role="status" aria-label="Loading"><span v-for="n in 5" :key="n" class="bones bone" /></div>
  <div v-else class="groups">
    <section v-for="group in groups.value.value" :key="group.value" :class="{ open: opened === group.value }">
      <h2>
        <RowButton class="head" :aria-expanded="opened === group.value" @click="toggle(group)">
          <span class="name">{{ group.label }}</span>
          <span class="mono count">{{ group.count }}</span>
          <span class="bar" aria-hidden="true"><span :style="{ width: `${(100 * group.count) / Math.max(1, total)}%` }" /></span>
          <span v-if="group.past === null" />
          <span v-else class="past" :class="{ soft: !group.past }">{{ group.past ? `${group.past} past target` : 'none past target' }}</span>
          <span class="mono violet amount">{{ group.estimateMinor === null ? '' : formatMinor(group.estimateMinor) }}</span>
        </RowButton>
      </h2>
      <div v-if="opened === group.value" class="rows" :style="{ height: `${Math.min(group.count, MOST) * (ask.compact ? 30 : 44) + 34}px` }">
        <ListTable
          :ask="{ ...within(group), columns: ask.columns }"
          :rows="rows"
          :at="-1"
          :open="open"
          :marked="nothing.marked"
          :changed="nothing.changed"
          :more="false"
          unmarkable
          @show="emit('show', rows[$event]!)"
          @sort="emit('sort', $event)"
          @peek="emit('peek', $event)"
        />
      </div>
      <p v-if="opened === group.value" class="on">
        <RouterLink :to="addressOf(group)">{{ group.count > MOST ? `Show all ${group.count} as a list` : 'Show as a list' }}</RouterLink>
      </p>
    </section>
    <p v-if="!groups.value.value.length" class="empty">Nothing matches the filters.</p>
  </div>
</template>

<style scoped>
.groups {
  flex: 1;
  min-height: 0;
  overflow: auto;
}
.bone {
  display: block;
  height: 36px;
  margin: 8px 12px;
}
section {
  border-bottom: 1px solid var(--line);
}
.head {
  display: grid;
  grid-template-columns: minmax(160px, 1fr) 72px 160px 130px 120px;
  gap: 12px;
  align-items: center;
  width: 100%;
  padding: 9px 12px;
  font-weight: 400;
}
.head:hover {
  background: var(--shoal-faint);
}
.name {
  font-weight: 600;
}
.count,
.amount {
  text-align: right;
}
.bar {
  height: 8px;
  background: var(--paper);
  box-shadow: inset 0 0 0 1px var(--line-strong);
  border-radius: 2px;
  overflow: hidden;
}
.bar span {
  display: block;
  height: 100%;
  background: var(--tide);
}
.past {
  font-size: 13px;
}
.rows {
  display: flex;
  flex-direction: column;
  max-height: 60vh;
}
.on {
  padding: 6px 12px 10px;
  font-size: 13px;
}
</style>
