<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { exportList } from '#contract/lists'
import type { RecordLine } from '#contract/lists'
import { askedField, formatAsk, isRegister, LIST_NAMES, listFieldsFor, parseAsk, withClause, withoutField } from '#core/lists'
import type { Clause, ListAsk, ListKind } from '#core/lists'
import { address, offerActs, ProblemNote, useSession } from '#web/kit'
import { useOwnFields } from '#web/own'
import BulkBar from './BulkBar.vue'
import BulkChange from './BulkChange.vue'
import ColumnsForm from './ColumnsForm.vue'
import FilterChips from './FilterChips.vue'
import FilterForm from './FilterForm.vue'
import GroupList from './GroupList.vue'
import ListLooks from './ListLooks.vue'
import ListPane from './ListPane.vue'
import ListTable from './ListTable.vue'
import PeekCard from './PeekCard.vue'
import SaveViewForm from './SaveViewForm.vue'
import { sortedBy } from './sortedBy'
import { useList } from './useList'
import type { Line, WorkLine } from './useList'
import { useListKeys } from './useListKeys'
import { useMarks } from './useMarks'
import { baseOf, useViews } from './useViews'
import ViewRail from './ViewRail.vue'

/** Orders, requests or the records of a register by any field. The address bar holds what is shown, so that it can be sent. */
const props = defineProps<{ kind: ListKind }>()
const route = useRoute()
const router = useRouter()
const session = useSession()
const store = useViews()
void store.load()

const own = useOwnFields()
const fields = computed(() => [...listFieldsFor(props.kind, session.can), ...own.listFields(props.kind)])
const query = computed(() => route.query as Record<string, string>)
const parsed = computed(() => {
  const { view: _, open: __, ...rest } = query.value
  return parseAsk(props.kind, new URLSearchParams(rest).toString(), fields.value)
})
const ask = computed(() => parsed.value.ask)
const viewKey = computed(() => query.value.view ?? null)
const view = computed(() => store.views?.rows.find((one) => one.key === viewKey.value) ?? null)
const differs = computed(() => !view.value || formatAsk(parseAsk(props.kind, view.value.address, fields.value).ask) !== formatAsk(ask.value))
const open = computed(() => (query.value.open ? Number(query.value.open) : null))

const list = useList(ask)
const { rows, facts, next, problem, ready, trail, changed, missed } = list
const table = ref<InstanceType<typeof ListTable> | null>(null)
const at = ref(-1)
const { marked, markedLines, mark: markRow, markAll, unmark } = useMarks(rows)
const peeking = ref<number | null>(null)
const dialog = ref<{ what: 'filter'; field: string } | { what: 'save' } | { what: 'columns' } | null>(null)

function go(to: ListAsk, more: Record<string, string | undefined> = {}): void {
  const { view: shown, open: opened } = { view: query.value.view, open: query.value.open, ...more }
  const parts = [formatAsk(to), shown ? `view=${shown}` : '', opened ? `open=${opened}` : ''].filter(Boolean)
  void router.push(`${baseOf(to.kind)}${parts.length ? `?${parts.join('&')}` : ''}`)
}
watch(
  () => `${props.kind} ${formatAsk({ ...ask.value, columns: [], compact: false })}`,
  () => {
    at.value = -1
    marked.value = new Set()
    peeking.value = null
  },
)

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
function show(line: Line | undefined): void {
  if (line) go(ask.value, { open: String(line.id) })
}
function showAt(index: number): void {
  at.value = index
  show(rows.value[index])
}
function mark(index: number, range: boolean): void {
  markRow(index, range ? at.value : null)
  if (rows.value[index]) at.value = index
}
const { step } = useListKeys({
  rows,
  at,
  open,
  peeking,
  focusRow: (index) => void table.value?.focusRow(index),
  showAt,
  close: () => go(ask.value, { open: undefined }),
  turn: list.turn,
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
const fileOf = (format: 'csv' | 'xlsx') => address(exportList, { kind: props.kind, ask: formatAsk({ ...ask.value, group: null }), format })
const title = computed(() => (view.value && !differs.value ? view.value.name : view.value ? `${view.value.name}, changed` : LIST_NAMES[props.kind]))
const from = computed(() => (trail.value.length - 1) * Number(ask.value.size) + 1)
function saved(key: string): void {
  dialog.value = null
  go(ask.value, { view: key })
}
</script>

<template>
  <div class="lists" :class="{ split: !!open }">
    <ViewRail v-if="!open" class="views" :here="viewKey" :kind="kind" />
    <section class="main" :aria-label="title">
      <header>
        <component :is="isRegister(kind) ? 'h2' : 'h1'">{{ title }}</component>
        <span class="mono soft" role="status" aria-label="Rows in the list">{{
          facts ? `${facts.count.toLocaleString('en')}${facts.more ? '+' : ''}` : '…'
        }}</span>
        <span class="grow" />
        <NButton size="small" @click="dialog = { what: 'save' }">Save view <kbd>W</kbd></NButton>
        <NButton id="export-csv" tag="a" size="small" :href="fileOf('csv')" download>CSV</NButton>
        <NButton id="export-xlsx" tag="a" size="small" :href="fileOf('xlsx')" download>XLSX</NButton>
      </header>
      <FilterChips
        :ask="ask"
        :names="facts?.names ?? {}"
        @change="dialog = { what: 'filter', field: $event }"
        @away="go(withoutField(ask, $event), { open: undefined })"
        @add="askFor"
      />
      <p v-if="parsed.wrong.length" class="wrong said" role="alert">
        Part of the address could not be read and was left out: {{ parsed.wrong.join(', ') }}. The rest is as it was asked for.
      </p>
      <ListLooks :ask="ask" @change="go" @columns="dialog = { what: 'columns' }" />
      <ProblemNote v-if="problem && !ready" :problem="problem" @retry="list.reload" />
      <GroupList v-else-if="ask.group" :ask="ask" :open="open" @show="show" @sort="go(sortedBy(ask, $event))" @peek="peeking = $event" />
      <div v-else-if="!ready" class="waiting" role="status" aria-label="Loading"><span v-for="n in 10" :key="n" class="bones" /></div>
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
          @sort="go(sortedBy(ask, $event))"
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
      <slot name="marked" :lines="markedLines" />
      <BulkChange
        v-if="isRegister(kind)"
        :register="kind"
        :lines="markedLines as RecordLine[]"
        @clear="marked = new Set()"
        @unmark="unmark"
        @done="list.reload"
      />
      <BulkBar v-else :kind="kind" :lines="markedLines as WorkLine[]" @clear="marked = new Set()" @unmark="unmark" @done="list.reload" />
    </section>
    <ListPane v-if="open" :id="open" :kind="kind" @close="go(ask, { open: undefined })" @next="step(1)" />
    <PeekCard v-if="peeking && peeking !== open" :id="peeking" :kind="kind" />
    <FilterForm
      v-if="dialog?.what === 'filter'"
      :key="dialog.field"
      :kind="kind"
      :field="askedField(ask, dialog.field)"
      :clause="ask.clauses.find((one) => dialog?.what === 'filter' && one.field === dialog.field) ?? null"
      :names="facts?.names[dialog.field] ?? {}"
      @set="setClause"
      @close="dialog = null"
    />
    <SaveViewForm v-if="dialog?.what === 'save'" :kind="kind" :address="formatAsk(ask)" :view="view" @saved="saved" @close="dialog = null" />
    <ColumnsForm v-if="dialog?.what === 'columns'" :ask="ask" @change="go" @close="dialog = null" />
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
@media (max-width: 900px) {
  .lists {
    display: block;
    overflow: auto;
  }
  .views {
    width: 100%;
    max-height: 168px;
  }
  .main {
    min-height: 70vh;
  }
  .split .main {
    display: none;
  }
}
</style>
