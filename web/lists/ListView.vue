<script setup lang="ts">
import { NCheckbox } from 'naive-ui/es/checkbox'
import { NButton } from 'naive-ui/es/button'
import { computed, nextTick, ref, shallowRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { exportList } from '#contract/lists'
import { clauseWords, formatAsk, LIST_FIELDS, listField, PAGE_SIZES, parseAsk, USUAL_COLUMNS, withClause, withoutField } from '#core/lists'
import type { Clause, ListAsk, ListKind, PageSize } from '#core/lists'
import { formatMinor } from '#core/kit'
import { RowButton, texts, ListEntry, address, DialogBox, offerActs, PaneSplitter, ProblemNote, useKeys, useSession, useWidth, PickField } from '#web/kit'
import { OrderSheet } from '#web/orders'
import { RequestSheet } from '#web/requests'
import BulkBar from './BulkBar.vue'
import FilterForm from './FilterForm.vue'
import GroupList from './GroupList.vue'
import ListTable from './ListTable.vue'
import PeekCard from './PeekCard.vue'
import SaveViewForm from './SaveViewForm.vue'
import { useList } from './useList'
import type { Line } from './useList'
import { useViews } from './useViews'
import ViewRail from './ViewRail.vue'

/** Orders or requests by any field. The address bar holds what is shown, so that it can be sent. */
const route = useRoute()
const router = useRouter()
const session = useSession()
const store = useViews()
void store.load()

const kind = computed(() => route.params.kind as ListKind)
const query = computed(() => route.query as Record<string, string>)
const parsed = computed(() => {
  const { view: _, open: __, ...rest } = query.value
  return parseAsk(kind.value, new URLSearchParams(rest).toString())
})
const ask = computed(() => parsed.value.ask)
const viewKey = computed(() => query.value.view ?? null)
const view = computed(() => store.views?.rows.find((one) => one.key === viewKey.value) ?? null)
const differs = computed(() => !view.value || formatAsk(parseAsk(kind.value, view.value.address).ask) !== formatAsk(ask.value))
const open = computed(() => (query.value.open ? Number(query.value.open) : null))

const list = useList(ask)
const { rows, facts, next, problem, ready, trail, changed, missed } = list
const table = ref<InstanceType<typeof ListTable> | null>(null)
const at = ref(-1)
const marked = shallowRef(new Set<number>())
const lines = shallowRef(new Map<number, Line>())
const peeking = ref<number | null>(null)
const dialog = ref<{ what: 'filter'; field: string } | { what: 'save' } | { what: 'columns' } | null>(null)
const sheetWidth = useWidth('list-sheet', 620, 420, 900)

function go(to: ListAsk, more: Record<string, string | undefined> = {}): void {
  const { view: shown, open: opened } = { view: query.value.view, open: query.value.open, ...more }
  const parts = [formatAsk(to), shown ? `view=${shown}` : '', opened ? `open=${opened}` : ''].filter(Boolean)
  void router.push(`/lists/${to.kind}${parts.length ? `?${parts.join('&')}` : ''}`)
}
watch(
  () => `${kind.value} ${formatAsk({ ...ask.value, columns: [], compact: false })}`,
  () => {
    at.value = -1
    marked.value = new Set()
    peeking.value = null
  },
)

const nameOf = (field: { name: string; register?: string }, id: string) =>
  id === 'me' ? 'me' : id === 'mine' ? 'my team' : (facts.value?.names[field.name]?.[id] ?? '…')
const chips = computed(() => ask.value.clauses.map((clause) => ({ clause, words: clauseWords(kind.value, clause, nameOf, formatMinor) })))
const fieldsLeft = computed(() => LIST_FIELDS[kind.value].filter((field) => !ask.value.clauses.some((clause) => clause.field === field.name)))
const groupable = computed(() => LIST_FIELDS[kind.value].filter((field) => field.groups))
const sortable = computed(() => LIST_FIELDS[kind.value].filter((field) => field.sorts))
const showable = computed(() => LIST_FIELDS[kind.value].filter((field) => field.shows))

/** The keyboard is the list’s again once the form is left. */
function askFor(field: string): void {
  setTimeout(() => {
    ;(document.activeElement as HTMLElement | null)?.blur()
    dialog.value = { what: 'filter', field }
  })
}
function setClause(clause: Clause): void {
  dialog.value = null
  go(withClause(ask.value, clause), { open: undefined })
}
const labelled = (fields: readonly { name: string; label: string }[]) => fields.map(({ name, label }) => ({ value: name, label }))
function sortBy(field: string): void {
  const down = ask.value.sort.field === field ? !ask.value.sort.down : field !== 'due' && field !== 'priority'
  go({ ...ask.value, sort: { field, down } })
}
function toggleColumn(name: string): void {
  const has = ask.value.columns.includes(name)
  const columns = has
    ? ask.value.columns.filter((one) => one !== name)
    : showable.value.map((field) => field.name).filter((one) => one === name || ask.value.columns.includes(one))
  if (columns.length) go({ ...ask.value, columns })
}

function show(line: Line | undefined): void {
  if (line) go(ask.value, { open: String(line.id) })
}
function showAt(index: number): void {
  at.value = index
  show(rows.value[index])
}
function mark(index: number, range: boolean): void {
  const line = rows.value[index]
  if (!line) return
  const next = new Set(marked.value)
  const on = !next.has(line.id)
  const span = range && at.value >= 0 ? rows.value.slice(Math.min(at.value, index), Math.max(at.value, index) + 1) : [line]
  for (const one of span) {
    if (on) next.add(one.id)
    else next.delete(one.id)
    lines.value.set(one.id, one)
  }
  at.value = index
  marked.value = next
}
function markAll(): void {
  const all = rows.value.every((row) => marked.value.has(row.id))
  rows.value.forEach((row) => lines.value.set(row.id, row))
  marked.value = all ? new Set() : new Set(rows.value.map((row) => row.id))
}
/** Marked rows as they are now, also those of pages turned since. */
const markedLines = computed(() => [...marked.value].map((id) => rows.value.find((row) => row.id === id) ?? lines.value.get(id)!).filter(Boolean))
function unmark(ids: number[]): void {
  marked.value = new Set([...marked.value].filter((id) => !ids.includes(id)))
}

function step(by: 1 | -1): void {
  if (!rows.value.length) return
  at.value = Math.min(rows.value.length - 1, Math.max(0, at.value + by))
  void table.value?.focusRow(at.value)
  if (open.value) showAt(at.value)
  if (peeking.value) peeking.value = rows.value[at.value]!.id
}

useKeys((key) => {
  if (key === 'ArrowDown' || key === 'ArrowUp') {
    step(key === 'ArrowDown' ? 1 : -1)
    return true
  }
  const here = rows.value[at.value]
  const onRow = !document.activeElement?.matches('a, button, input, summary')
  if (key === 'Enter' && here && onRow) {
    if (open.value === here.id) document.getElementById('list-sheet')?.focus()
    else showAt(at.value)
    return true
  }
  if (key === ' ' && here && onRow) {
    peeking.value = peeking.value === here.id ? null : here.id
    return true
  }
  if (key === 'Escape') {
    if (peeking.value) peeking.value = null
    else if (open.value) go(ask.value, { open: undefined })
    void nextTick(() => (at.value >= 0 ? table.value?.focusRow(at.value) : undefined))
    return true
  }
  if (key === 'PageDown' || key === 'PageUp') {
    list.turn(key === 'PageDown' ? 1 : -1)
    return true
  }
})
offerActs(() => [
  { label: 'Add a filter', key: 'f', run: () => document.getElementById('add-filter')?.focus() },
  { label: 'Mark this row', key: 'm', run: () => at.value >= 0 && mark(at.value, false) },
  { label: 'Save this view', key: 'w', run: () => (dialog.value = { what: 'save' }) },
  { label: 'Choose columns', run: () => (dialog.value = { what: 'columns' }) },
  { label: ask.value.compact ? 'Use comfortable rows' : 'Use compact rows', run: () => go({ ...ask.value, compact: !ask.value.compact }) },
  { label: 'Take this list away as CSV', run: () => document.getElementById('export-csv')?.click() },
  { label: 'Take this list away as XLSX', run: () => document.getElementById('export-xlsx')?.click() },
])
const fileOf = (format: 'csv' | 'xlsx') => address(exportList, { kind: kind.value, ask: formatAsk({ ...ask.value, group: null }), format })
const title = computed(() =>
  view.value && !differs.value ? view.value.name : view.value ? `${view.value.name}, changed` : kind.value === 'orders' ? 'Orders' : 'Requests',
)
/** Which end of the order comes first, in words that fit what it goes by. */
const way = computed(() => {
  const { field, down } = ask.value.sort
  if (field === 'priority') return down ? 'least pressing first' : 'most pressing first'
  if (listField(kind.value, field)!.shape === 'day') return down ? 'latest first' : 'earliest first'
  return down ? 'highest first' : 'lowest first'
})
const from = computed(() => (trail.value.length - 1) * Number(ask.value.size) + 1)
function saved(key: string): void {
  dialog.value = null
  go(ask.value, { view: key })
}
</script>

<template>
  <div class="lists" :class="{ split: !!open }">
    <ViewRail v-if="!open" class="views" :here="viewKey" />
    <section class="main" :aria-label="title">
      <header>
        <h1>{{ title }}</h1>
        <span class="mono soft" role="status" aria-label="Rows in the list">{{
          facts ? `${facts.count.toLocaleString('en')}${facts.more ? '+' : ''}` : '…'
        }}</span>
        <span class="grow" />
        <NButton size="small" @click="dialog = { what: 'save' }">Save view <kbd>W</kbd></NButton>
        <NButton id="export-csv" tag="a" size="small" :href="fileOf('csv')" download>CSV</NButton>
        <NButton id="export-xlsx" tag="a" size="small" :href="fileOf('xlsx')" download>XLSX</NButton>
      </header>
      <div class="chips" aria-label="Filters">
        <span v-for="chip in chips" :key="chip.clause.field" class="chip">
          <RowButton class="plain" :aria-label="`Change the filter ${chip.words}`" @click="dialog = { what: 'filter', field: chip.clause.field }">
            <span>{{ chip.words }}</span>
          </RowButton>
          <RowButton
            class="plain off"
            :aria-label="`Take the filter ${listField(kind, chip.clause.field)!.label} away`"
            @click="go(withoutField(ask, chip.clause.field), { open: undefined })"
          >
            ×
          </RowButton>
        </span>
        <PickField
          id="add-filter"
          label-hidden
          class="add"
          label="Add a filter"
          placeholder="Add a filter (F)"
          :value="null"
          :choices="fieldsLeft.map((field) => ({ value: field.name, label: field.label }))"
          @pick="askFor($event as string)"
        />
      </div>
      <p v-if="parsed.wrong.length" class="wrong said" role="alert">
        Part of the address could not be read and was left out: {{ parsed.wrong.join(', ') }}. The rest is as it was asked for.
      </p>
      <div class="looks">
        <ListEntry
          id="list-order"
          inline
          small
          label="Order"
          :model-value="ask.sort.field"
          :options="labelled(sortable)"
          @update:model-value="$event && sortBy($event)"
        />
        <NButton size="small" :aria-label="`Order: ${way}; turn it round`" @click="sortBy(ask.sort.field)">
          {{ way }}
        </NButton>
        <ListEntry
          id="list-group"
          inline
          small
          label="Group"
          clearable
          placeholder="not at all"
          :model-value="ask.group"
          :options="labelled(groupable)"
          @update:model-value="go({ ...ask, group: $event })"
        />
        <ListEntry
          id="list-size"
          class="rows"
          inline
          small
          label="Rows"
          :model-value="ask.size"
          :options="texts(PAGE_SIZES)"
          @update:model-value="$event && go({ ...ask, size: $event as PageSize })"
        />
        <NButton size="small" @click="go({ ...ask, compact: !ask.compact })">{{ ask.compact ? 'Comfortable' : 'Compact' }}</NButton>
        <NButton size="small" @click="dialog = { what: 'columns' }">Columns</NButton>
      </div>
      <ProblemNote v-if="problem && !ready" :problem="problem" @retry="list.reload" />
      <GroupList v-else-if="ask.group" :ask="ask" :open="open" @show="show" @sort="sortBy" @peek="peeking = $event" />
      <div v-else-if="!ready" class="waiting" aria-label="Loading"><span v-for="n in 10" :key="n" class="bones" /></div>
      <div v-else-if="!rows.length" class="empty">
        <p>{{ ask.clauses.length ? 'Nothing matches the filters.' : 'There is nothing here yet.' }}</p>
        <NButton v-if="ask.clauses.length" @click="go({ ...ask, clauses: [] })">Take all filters away</NButton>
      </div>
      <template v-else>
        <p v-if="problem" class="wrong said" role="alert">{{ problem.detail }} What is shown is as it was before.</p>
        <ListTable
          ref="table"
          :ask="ask"
          :rows="rows"
          :at="at"
          :open="open"
          :marked="marked"
          :changed="changed"
          :more="!!next"
          @sort="sortBy"
          @show="showAt"
          @mark="mark"
          @mark-all="markAll"
          @peek="peeking = $event"
          @end="list.readOn"
        />
        <p class="foot">
          <template v-if="ask.size === 'all'"
            ><span class="mono">{{ rows.length.toLocaleString('en') }}</span> read{{ next ? ', more as you scroll' : ', all of them' }}
            <NButton v-if="missed" text type="primary" class="link" @click="list.reload">Changes since: {{ missed }}. Read anew</NButton></template
          >
          <template v-else>
            <span class="mono">{{ from }}–{{ from + rows.length - 1 }}</span>
            <NButton size="small" :disabled="trail.length < 2" @click="list.turn(-1)">Previous</NButton>
            <NButton size="small" :disabled="!next" @click="list.turn(1)">Next</NButton>
          </template>
        </p>
      </template>
      <BulkBar v-if="session.can('desk.read')" :kind="kind" :lines="markedLines" @clear="marked = new Set()" @unmark="unmark" @done="list.reload" />
    </section>
    <template v-if="open">
      <PaneSplitter
        label="Width of the Sheet"
        toward="left"
        :width="sheetWidth.width.value"
        :least="sheetWidth.least"
        :most="sheetWidth.most"
        @resize="sheetWidth.set"
      />
      <section id="list-sheet" class="sheet" tabindex="-1" aria-label="Sheet" :style="{ width: `${sheetWidth.width.value}px` }">
        <p class="leave">
          <NButton text type="primary" class="link" @click="go(ask, { open: undefined })">Close the Sheet <kbd class="mono">Esc</kbd></NButton>
        </p>
        <OrderSheet v-if="kind === 'orders'" :id="open" :key="`o${open}`" />
        <RequestSheet v-else :id="open" :key="`r${open}`" @next="step(1)" @show="(type, id) => router.push(`/desk/triage/${type}/${id}`)" />
      </section>
    </template>
    <PeekCard v-if="peeking && peeking !== open" :id="peeking" :kind="kind" />
    <FilterForm
      v-if="dialog?.what === 'filter'"
      :key="dialog.field"
      :kind="kind"
      :field="dialog.field"
      :clause="ask.clauses.find((one) => dialog?.what === 'filter' && one.field === dialog.field) ?? null"
      :names="facts?.names[dialog.field] ?? {}"
      @set="setClause"
      @close="dialog = null"
    />
    <SaveViewForm v-if="dialog?.what === 'save'" :kind="kind" :address="formatAsk(ask)" :view="view" @saved="saved" @close="dialog = null" />
    <DialogBox v-if="dialog?.what === 'columns'" title="Columns" @close="dialog = null">
      <h1>Columns</h1>
      <ul class="columns">
        <li v-for="field in showable" :key="field.name">
          <NCheckbox :checked="ask.columns.includes(field.name)" @update:checked="toggleColumn(field.name)">{{ field.label }}</NCheckbox>
        </li>
      </ul>
      <p class="looks">
        <NButton type="primary" data-first @click="dialog = null">Close</NButton>
        <NButton @click="go({ ...ask, columns: USUAL_COLUMNS[kind] })">The usual ones</NButton>
      </p>
    </DialogBox>
  </div>
</template>

<style scoped>
.lists {
  height: 100%;
  display: flex;
  min-height: 0;
}
.views {
  flex: none;
  width: 176px;
}
.main {
  flex: 1;
  min-width: 0;
  display: flex;
  flex-direction: column;
  background: var(--sheet);
}
header {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
  padding: 10px 12px 6px;
}
.grow {
  flex: 1;
}
/* A label on a button is one line. */
.small {
  white-space: nowrap;
  min-height: 28px;
  padding: 0 9px;
  font-size: 13px;
}
.chips {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  padding: 0 12px 8px;
}
.chip {
  display: inline-flex;
  align-items: center;
  max-width: 100%;
  border: 1px solid var(--line-strong);
  border-radius: 6px;
  background: var(--shoal-faint);
  font-size: 13px;
  min-height: 28px;
}
.chip button:first-child {
  padding: 2px 4px 2px 10px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.chip:hover {
  border-color: var(--tide);
}
.off {
  padding: 2px 9px 2px 5px;
  font-size: 16px;
  line-height: 1;
}
.off:hover {
  color: var(--buoy);
}
.add {
  width: 176px;
}
.add :deep(label) {
  position: absolute;
  width: 1px;
  height: 1px;
  overflow: hidden;
  clip-path: inset(50%);
}
.looks {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 12px;
  align-items: center;
  padding: 0 12px 8px;
  font-size: 13px;
  color: var(--ink-soft);
}
.looks > .list-entry {
  width: 170px;
}
.looks > .rows {
  width: 112px;
}
.said {
  padding: 4px 12px 8px;
}
.waiting {
  display: grid;
  gap: 10px;
  padding: 12px;
}
.waiting .bones {
  height: 34px;
}
.foot {
  display: flex;
  gap: 10px;
  align-items: center;
  padding: 6px 12px;
  border-top: 1px solid var(--line);
  font-size: 13px;
}
.sheet {
  flex: none;
  max-width: 70%;
  overflow: auto;
  background: var(--sheet);
  outline: none;
  scroll-padding-top: 150px;
}
.sheet:focus-visible {
  box-shadow: inset 0 0 0 2px var(--tide);
}
.leave {
  padding: 6px 16px 0;
  font-size: 12px;
}
.columns {
  list-style: none;
  margin: 10px 0;
  padding: 0;
  columns: 3;
}
.push:disabled {
  color: var(--ink-soft);
  border-style: dashed;
  cursor: default;
}
@media (max-width: 900px) {
  .lists {
    display: block;
    overflow: auto;
  }
  .views,
  .sheet {
    width: 100% !important;
    max-width: none;
  }
  .views {
    max-height: 168px;
  }
  .main {
    min-height: 70vh;
  }
  .split .main {
    display: none;
  }
  .columns {
    columns: 2;
  }
}
</style>
