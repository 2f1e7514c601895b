<script setup lang="ts">
import { NCheckbox } from 'naive-ui/es/checkbox'
import { NButton } from 'naive-ui/es/button'
import { NDataTable } from 'naive-ui/es/data-table'
import type { DataTableColumns } from 'naive-ui/es/data-table'
import { computed, h, ref, watch } from 'vue'
import { RouterLink, useRoute } from 'vue-router'
import { readRegister } from '#contract/places'
import type { Permission } from '#core/people'
import { formatMinor } from '#core/kit'
import { ONE_OF, REGISTER_NAMES, REGISTERS } from '#core/registers'
import type { RegisterName } from '#core/registers'
import { TextEntry, call, dayOf, offerActs, ProblemNote, RecordLink, usePortrait, useReadAs, useSession, useSoon } from '#web/kit'
import { AddRecord, KINDS, TreeView } from '#web/portraits'
import LabelBar from './LabelBar.vue'

/** Places, assets, people, vendors, payers and parts: found by typing part of what they are called. */
const route = useRoute()
const register = computed(() => (String(route.params.register || '') || 'places') as RegisterName)
const q = ref(typeof route.query.q === 'string' ? route.query.q : '')
const asked = ref(q.value)
const pages = ref(1)

type Row = Record<string, unknown> & { id: number }
const COLUMNS: Record<RegisterName, { key: string; name: string; as?: 'mono' | 'day' | 'money' | 'percent' }[]> = {
  places: [
    { key: 'code', name: 'Code', as: 'mono' },
    { key: 'name', name: 'Name' },
    { key: 'kind', name: 'Kind' },
    { key: 'within', name: 'Within' },
  ],
  assets: [
    { key: 'tag', name: 'Tag', as: 'mono' },
    { key: 'name', name: 'Name' },
    { key: 'classCode', name: 'Class', as: 'mono' },
    { key: 'place', name: 'Place' },
    { key: 'warrantyUntil', name: 'Warranty until', as: 'day' },
  ],
  people: [
    { key: 'name', name: 'Name' },
    { key: 'title', name: 'Role' },
    { key: 'email', name: 'Mail' },
    { key: 'place', name: 'Place' },
  ],
  vendors: [
    { key: 'name', name: 'Name' },
    { key: 'service', name: 'Service' },
    { key: 'email', name: 'Mail' },
    { key: 'phone', name: 'Phone', as: 'mono' },
    { key: 'contractUntil', name: 'Contract until', as: 'day' },
    { key: 'insuranceUntil', name: 'Insured until', as: 'day' },
    { key: 'markupBp', name: 'Markup', as: 'percent' },
  ],
  payers: [
    { key: 'code', name: 'Code', as: 'mono' },
    { key: 'name', name: 'Name' },
    { key: 'kind', name: 'Kind' },
    { key: 'taxBp', name: 'Tax', as: 'percent' },
  ],
  parts: [
    { key: 'code', name: 'Code', as: 'mono' },
    { key: 'name', name: 'Name' },
    { key: 'inStock', name: 'In stock', as: 'mono' },
    { key: 'unit', name: 'Unit' },
    { key: 'averageCostMinor', name: 'Average cost', as: 'money' },
  ],
  teams: [
    { key: 'name', name: 'Name' },
    { key: 'members', name: 'Technicians', as: 'mono' },
  ],
  stores: [
    { key: 'name', name: 'Name' },
    { key: 'place', name: 'Place' },
    { key: 'kinds', name: 'Kinds of parts', as: 'mono' },
  ],
  equipment: [
    { key: 'tag', name: 'Tag', as: 'mono' },
    { key: 'name', name: 'Name' },
    { key: 'lentTo', name: 'Lent to', as: 'mono' },
  ],
}

async function readPages() {
  const rows: Row[] = []
  let after: string | undefined
  for (let page = 0; page < pages.value; page++) {
    const answer = await call(readRegister, { register: register.value, q: asked.value, retired: retired.value || undefined, after, limit: 50 })
    rows.push(...(answer.rows as unknown as Row[]))
    after = answer.next ?? undefined
    if (!after) break
  }
  return { rows, more: !!after }
}
const session = useSession()
const portrait = usePortrait()
const adding = ref(false)
/** Those that are retired instead of those in use. */
const retired = ref(false)
const isTree = computed(() => route.query.as === 'tree')
const mayAdd = computed(() => session.can(KINDS[register.value].add.may as Permission))
offerActs(() => (mayAdd.value ? [{ label: `New ${ONE_OF[register.value].name}`, run: () => (adding.value = true) }] : []))

/** The rows stay while more of the same register are read. */
const list = useReadAs(() => ['register', register.value, asked.value, retired.value, pages.value], readPages, {
  holds: ([, before]) => before === register.value,
})
const rows = computed(() => list.value.value?.rows ?? [])
const labelled = computed(() => (register.value === 'places' || register.value === 'assets' ? register.value : null))
const chosen = ref<number[]>([])
watch([register, asked, retired], () => {
  pages.value = 1
  chosen.value = []
})
watch(
  q,
  useSoon(() => (asked.value = q.value), 150),
)
/** Read on before the last row is reached. */
function scrolled(event: Event): void {
  const { scrollTop, scrollHeight, clientHeight } = event.target as HTMLElement
  if (list.value.value?.more && !list.busy.value && scrollHeight - scrollTop - clientHeight < 400) pages.value++
}

/** What was entered is opened, and stands in the register. */
function added({ id }: { id: number }): void {
  adding.value = false
  portrait.open({ register: register.value, id })
  void list.load()
}

const tick = (name: string, on: boolean, set: (on: boolean) => void) => h(NCheckbox, { checked: on, 'aria-label': name, 'onUpdate:checked': set })
const all = computed(() => chosen.value.length > 0 && chosen.value.length === rows.value.length)
const columns = computed<DataTableColumns<Row>>(() => [
  ...(labelled.value
    ? [
        {
          key: 'tick',
          width: 40,
          title: () => tick('Choose all that are listed', all.value, (on) => (chosen.value = on ? rows.value.map((row) => row.id) : [])),
          render: (row: Row) =>
            tick(
              `Choose ${String(row.name)}`,
              chosen.value.includes(row.id),
              (on) => (chosen.value = on ? [...chosen.value, row.id] : chosen.value.filter((id) => id !== row.id)),
            ),
        },
      ]
    : []),
  ...COLUMNS[register.value].map((column) => ({
    key: column.key,
    title: column.name,
    align: column.as === 'money' || column.as === 'percent' ? ('right' as const) : ('left' as const),
    cellProps: () => ({ class: column.as && column.as !== 'day' ? 'mono' : '' }),
    ellipsis: true,
    render: (row: Row) =>
      column === COLUMNS[register.value][0]
        ? h(RecordLink, { record: { register: register.value, id: row.id } }, () => shown(row, column))
        : shown(row, column),
  })),
])

function shown(row: Row, { key, as }: { key: string; as?: string }): string {
  const value = row[key]
  if (value === null || value === undefined) return ''
  if (as === 'day') return dayOf(String(value))
  if (as === 'money') return formatMinor(Number(value))
  if (as === 'percent') return `${Number(value) / 100} %`
  if (key === 'inStock') return String(Number(value))
  return String(value).replaceAll('_', ' ')
}
</script>

<template>
  <div class="page">
    <header>
      <h1>Registers</h1>
      <TextEntry
        v-if="!(labelled && isTree)"
        id="register-q"
        v-model="q"
        class="find"
        kind="search"
        label-hidden
        :label="`Find in ${REGISTER_NAMES[register]}`"
        :placeholder="`Find in ${REGISTER_NAMES[register].toLowerCase()}`"
      />
      <NButton v-if="mayAdd" type="primary" @click="adding = true">New {{ ONE_OF[register].name }}</NButton>
    </header>
    <nav class="tabs" aria-label="Registers">
      <RouterLink v-for="key in REGISTERS" :key="key" :to="`/registers/${key}`" :aria-current="key === register ? 'page' : undefined">{{
        REGISTER_NAMES[key]
      }}</RouterLink>
    </nav>
    <p class="ways">
      <NCheckbox v-if="!(labelled && isTree)" v-model:checked="retired">Retired ones</NCheckbox>
      <RouterLink v-if="register === 'assets'" class="apart" to="/transfers">Transfers</RouterLink>
      <RouterLink v-if="labelled" :to="{ query: {} }" :aria-current="isTree ? undefined : 'true'">As a table</RouterLink>
      <RouterLink v-if="labelled" :to="{ query: { as: 'tree' } }" :aria-current="isTree ? 'true' : undefined">As a tree</RouterLink>
    </p>
    <TreeView v-if="labelled && isTree" />
    <LabelBar v-else-if="labelled" :kind="labelled" :ids="chosen" />
    <template v-if="!(labelled && isTree)">
      <ProblemNote v-if="list.problem.value" :problem="list.problem.value" @retry="list.load" />
      <section v-else-if="list.value.value" class="table" :aria-label="REGISTER_NAMES[register]">
        <NDataTable
          v-if="rows.length"
          virtual-scroll
          flex-height
          size="small"
          :bordered="false"
          :columns="columns"
          :data="rows"
          :row-key="(row: Row) => row.id"
          :min-row-height="36"
          @scroll="scrolled"
        />
        <p v-else class="soft">
          Nothing {{ retired ? 'retired ' : '' }}in {{ REGISTER_NAMES[register].toLowerCase()
          }}<template v-if="asked"> is called “{{ asked }}”. Part of a code or a name is enough; every word has to be there as it begins</template>.
        </p>
        <p v-if="list.value.value.more"><NButton size="small" :loading="list.busy.value" @click="pages++">Show 50 more</NButton></p>
      </section>
      <div v-else class="bones wait" />
    </template>
    <AddRecord v-if="adding" :key="register" :register="register" @close="adding = false" @added="added" />
  </div>
</template>

<style scoped src="../kit/page.css"></style>
<style scoped>
.apart {
  order: 1;
  margin-left: auto;
}
.ways {
  display: flex;
  gap: 16px;
}
.ways [aria-current='true'] {
  color: var(--ink);
  text-decoration: none;
  font-weight: 600;
}
.page {
  height: 100%;
  display: flex;
  flex-direction: column;
}
.table {
  flex: 1;
  min-height: 320px;
  display: flex;
  flex-direction: column;
  gap: 8px;
}
.table > :first-child:not(p) {
  flex: 1;
}
</style>
