<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, nextTick, ref, watch } from 'vue'
import { listFindings } from '#contract/findings'
import { listOrders } from '#contract/orders'
import type { OrderLine, OrderSort } from '#contract/orders'
import { listKeptMail, listRequests } from '#contract/requests'
import { STATION_NAMES } from '#core/orders'
import type { Station } from '#core/orders'
import { REQUEST_STATE_NAMES } from '#core/requests'
import { RowButton, TextEntry, ListEntry, call, PriorityBar, ProblemNote, StageRing, TargetGauge, useRead, useReadAs, useSession, useSoon } from '#web/kit'
import type { RequestLine } from '#contract/requests'

/** The queue of a station: dense two-line rows, the most pressing first. */
const props = defineProps<{ station: Station; open: { type: string; id: number } | null }>()
const emit = defineEmits<{ show: ['request' | 'order', number] }>()
const session = useSession()
const text = ref('')
const sort = ref<OrderSort>('due')
const pages = ref(1)
const at = ref(-1)

type Row = { type: 'request'; line: RequestLine } | { type: 'order'; line: OrderLine }
const holdsRequests = computed(() => props.station === 'intake' || props.station === 'triage')

const asked = ref('')
async function readPages() {
  const rows: Row[] = []
  let after: string | null | undefined
  for (let page = 0; page < pages.value; page++) {
    const ask = { q: asked.value || undefined, after: after ?? undefined, limit: 50 }
    if (holdsRequests.value) {
      const answer = await call(listRequests, { ...ask, station: props.station as 'intake' | 'triage' })
      rows.push(...answer.rows.map((line) => ({ type: 'request' as const, line })))
      after = answer.next
    } else {
      const answer = await call(listOrders, { ...ask, station: props.station, sort: sort.value })
      rows.push(...answer.rows.map((line) => ({ type: 'order' as const, line })))
      after = answer.next
    }
    if (!after) break
  }
  return { rows, more: !!after }
}
/** The rows stay while more of them, or others of the same station, are read. */
const list = useReadAs(() => ['queue', props.station, sort.value, asked.value, pages.value], readPages, {
  holds: ([, station, order]) => station === props.station && order === sort.value,
  touchedBy: () => true,
})
watch(
  () => [props.station, sort.value],
  () => {
    pages.value = 1
    at.value = -1
  },
)
watch(
  text,
  useSoon(() => (asked.value = text.value.trim()), 150),
)

/** Mails nobody has looked at: they are part of what came in. */
const mails = useRead(listKeptMail, () => (props.station === 'intake' && session.can('requests.triage') ? {} : null), { touchedBy: () => true })
const kept = computed(() => mails.value.value?.rows.length ?? 0)

/** What was found on the way and is no order yet. */
const findings = useRead(listFindings, () => (props.station === 'planning' ? {} : null), { touchedBy: ({ kind }) => /^(finding|order)\./.test(kind) })
const found = computed(() => {
  const { rows = [], next = null } = findings.value.value ?? {}
  return rows.length ? `${rows.length}${next ? '+' : ''}` : ''
})

const rows = computed(() => list.value.value?.rows ?? [])
const openIndex = computed(() => rows.value.findIndex((row) => row.type === props.open?.type && row.line.id === props.open.id))
watch(openIndex, (now) => {
  if (now >= 0) at.value = now
})

const more = () => pages.value++

/** Answers whether there was a row to go to. */
function step(by: 1 | -1): boolean {
  // What was open and is gone from the queue has left its place to the one after it.
  const gone = props.open !== null && openIndex.value < 0
  const from = openIndex.value >= 0 ? openIndex.value : at.value - (gone && by === 1 ? 1 : 0)
  const next = Math.min(rows.value.length - 1, Math.max(0, from + by))
  const row = rows.value[next]
  if (!row || next === from) return false
  at.value = next
  emit('show', row.type, row.line.id)
  void nextTick(() => document.getElementById(`row-${next}`)?.focus())
  return true
}

function focusRow(): void {
  document.getElementById(`row-${Math.max(0, openIndex.value >= 0 ? openIndex.value : at.value)}`)?.focus()
}

const EMPTY: Record<Station, string> = {
  intake: 'Nothing new has come in. Requests from the Counter and calls arrive here by themselves.',
  triage: 'Nothing is being decided. Open a request in Intake and take it up.',
  planning: 'Nothing waits to be completed or approved. Accepted requests arrive here as orders.',
  dispatch: 'Nothing waits for somebody to go. Approved orders arrive here.',
  field: 'Nobody is on a job, and nothing is on hold.',
  wrapup: 'Nothing waits to be checked. Finished work arrives here.',
  charges: 'Nothing waits to be charged. Checked orders arrive here.',
}
defineExpose({ step, focusRow })
const SORTS = [
  { value: 'due', label: 'Target first' },
  { value: 'priority', label: 'Priority first' },
  { value: 'newest', label: 'Newest first' },
] as const
</script>

<template>
  <section class="pane" :aria-label="`Queue: ${STATION_NAMES[station]}`">
    <header>
      <h1>{{ STATION_NAMES[station] }}</h1>
      <span class="mono soft">{{ rows.length }}{{ list.value.value?.more ? '+' : '' }}</span>
      <ListEntry
        v-if="!holdsRequests"
        id="sort"
        class="sort"
        small
        label-hidden
        label="Order of the queue"
        :model-value="sort"
        :options="SORTS"
        @update:model-value="$event && (sort = $event)"
      />
      <RouterLink v-if="station === 'intake' && session.can('requests.triage')" class="aside" to="/kept-mail"
        >Kept mail<span v-if="kept" class="mono kept" :aria-label="`${kept} to look at`">{{ kept }}</span></RouterLink
      >
      <RouterLink v-if="station === 'planning'" class="aside" to="/findings"
        >Findings<span v-if="found" class="mono kept" :aria-label="`${found} wait for an order`">{{ found }}</span></RouterLink
      >
    </header>
    <TextEntry
      id="queue-filter"
      v-model="text"
      class="filter"
      kind="search"
      label-hidden
      label="Filter this queue"
      placeholder="Filter by number, words or place"
    />
    <ProblemNote v-if="list.problem.value" :problem="list.problem.value" @retry="list.load" />
    <div v-else-if="!list.value.value" role="status" aria-label="Loading">
      <div v-for="n in 8" :key="n" class="bone"><span class="bones" /><span class="bones short" /></div>
    </div>
    <div v-else-if="!rows.length" class="empty">
      <p v-if="asked">Nothing in {{ STATION_NAMES[station] }} has “{{ asked }}” in its number, words or place. <kbd class="mono">/</kbd> looks everywhere.</p>
      <p v-else>{{ EMPTY[station] }}</p>
      <NButton v-if="text" @click="text = ''">Clear the filter</NButton>
      <p v-else-if="station === 'intake' && session.can('requests.triage')"><kbd class="mono">N</kbd> enters a call.</p>
    </div>
    <ol v-else>
      <li v-for="(row, index) in rows" :key="`${row.type}${row.line.id}`">
        <RowButton
          :id="`row-${index}`"
          class="row"
          :class="{ here: index === openIndex }"
          :aria-current="index === openIndex ? 'true' : undefined"
          @click="emit('show', row.type, row.line.id)"
        >
          <span class="top"
            ><span class="mono number">{{ row.line.number }}</span
            ><span class="summary">{{ row.line.summary }}</span></span
          >
          <span class="under"
            ><span class="mono where">{{ row.line.place ?? 'no place' }}</span
            ><PriorityBar v-if="row.type === 'order' || row.line.priority" :priority="row.line.priority" /><span v-else /><StageRing
              v-if="row.type === 'order'"
              class="state"
              :state="row.line.state"
              :held-from="row.line.heldFrom" /><span v-else class="state">{{ REQUEST_STATE_NAMES[row.line.state] }}</span
            ><TargetGauge stacked :target="row.line.target"
          /></span>
        </RowButton>
      </li>
      <li v-if="list.value.value.more"><NButton class="more" @click="more">Show 50 more</NButton></li>
    </ol>
  </section>
</template>

<style scoped>
.kept {
  margin-left: 6px;
  font-weight: 700;
}
.aside {
  margin-left: auto;
  font-size: 13px;
}
.pane {
  display: flex;
  flex-direction: column;
  min-height: 0;
  font-size: 13px;
}
header {
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 12px 12px 8px;
}
.sort {
  width: 150px;
  margin-left: auto;
}
.filter {
  margin: 0 12px 8px;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
  overflow: auto;
  flex: 1;
  border-top: 1px solid var(--line);
}
li {
  border-bottom: 1px solid var(--line);
}
.row {
  display: flex;
  flex-direction: column;
  justify-content: center;
  gap: 2px;
  width: 100%;
  height: 52px;
  padding: 0 12px 0 9px;
  border-left: 3px solid transparent;
}
.row:hover {
  background: var(--shoal-faint);
}
.row.here {
  background: var(--shoal);
  border-left-color: var(--tide);
}
.row:focus-visible {
  outline-offset: -2px;
}
.top,
.under {
  display: flex;
  gap: 6px;
  align-items: center;
  min-width: 0;
}
.number {
  font-size: 12px;
}
.summary {
  font-weight: 600;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.where {
  font-size: 12px;
  overflow: hidden;
  text-overflow: ellipsis;
  color: var(--ink-soft);
  white-space: nowrap;
}
.number {
  white-space: nowrap;
}
.row.here .where {
  color: var(--ink);
}
.row.here :deep(.over) {
  color: var(--ink);
}
.state {
  white-space: nowrap;
}
.top {
  padding-right: 60px;
}
.under {
  display: grid;
  grid-template-columns: 60px 80px minmax(0, 1fr) 72px;
}
.under .state {
  overflow: hidden;
}
.bone {
  height: 52px;
  padding: 10px 12px;
  display: grid;
  gap: 6px;
  border-bottom: 1px solid var(--line);
}
.bone .bones {
  height: 12px;
  width: 85%;
}
.bone .short {
  width: 55%;
}
.more {
  margin: 8px 12px;
}
kbd {
  border: 1px solid var(--line-strong);
  border-radius: 3px;
  padding: 0 5px;
}
@media (forced-colors: active) {
  .row.here {
    outline: 2px solid Highlight;
    outline-offset: -2px;
  }
}
</style>
