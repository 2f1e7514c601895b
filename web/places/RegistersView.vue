<script setup lang="ts">
import { NCheckbox } from 'naive-ui/es/checkbox'
import { NButton } from 'naive-ui/es/button'
import { computed, ref, watch } from 'vue'
import { RouterLink, useRoute } from 'vue-router'
import { readRegister } from '#contract/places'
import type { RegisterName } from '#contract/places'
import { formatMinor } from '#core/kit'
import { TextEntry, call, dayOf, ProblemNote, useLoading, useSoon } from '#web/kit'
import LabelBar from './LabelBar.vue'

/** Places, assets, people, vendors, payers and parts: found by typing part of what they are called. */
const route = useRoute()
const register = computed(() => (String(route.params.register || '') || 'places') as RegisterName)
const q = ref(typeof route.query.q === 'string' ? route.query.q : '')
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
}
const NAMES: Record<RegisterName, string> = { places: 'Places', assets: 'Assets', people: 'People', vendors: 'Vendors', payers: 'Payers', parts: 'Parts' }

const list = useLoading(async () => {
  const rows: Row[] = []
  let after: string | undefined
  for (let page = 0; page < pages.value; page++) {
    const answer = await call(readRegister, { register: register.value, q: q.value, after, limit: 50 })
    rows.push(...(answer.rows as unknown as Row[]))
    after = answer.next ?? undefined
    if (!after) break
  }
  return { rows, more: !!after }
})
const labelled = computed(() => (register.value === 'places' || register.value === 'assets' ? register.value : null))
const chosen = ref<number[]>([])
function chooseAll(event: Event): void {
  chosen.value = (event.target as HTMLInputElement).checked ? list.value.value!.rows.map((row) => row.id) : []
}
watch(
  register,
  () => {
    pages.value = 1
    chosen.value = []
    list.value.value = null
    void list.load()
  },
  { immediate: true },
)
watch(q, useSoon(list.load, 150))

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
        id="register-q"
        v-model="q"
        class="find"
        kind="search"
        label-hidden
        :label="`Find in ${NAMES[register]}`"
        :placeholder="`Find in ${NAMES[register].toLowerCase()}`"
      />
    </header>
    <nav class="tabs" aria-label="Registers">
      <RouterLink v-for="(name, key) in NAMES" :key="key" :to="`/registers/${key}`" :aria-current="key === register ? 'page' : undefined">{{
        name
      }}</RouterLink>
    </nav>
    <LabelBar v-if="labelled" :kind="labelled" :ids="chosen" />
    <ProblemNote v-if="list.problem.value" :problem="list.problem.value" @retry="list.load" />
    <section v-else-if="list.value.value" :aria-label="NAMES[register]">
      <table v-if="list.value.value.rows.length" class="plain-table">
        <thead>
          <tr>
            <th v-if="labelled" class="tick">
              <NCheckbox
                aria-label="Choose all that are listed"
                :checked="chosen.length > 0 && chosen.length === list.value.value.rows.length"
                @update:checked="chooseAll"
              />
            </th>
            <th v-for="column in COLUMNS[register]" :key="column.key" :class="{ amount: column.as === 'money' || column.as === 'percent' }">
              {{ column.name }}
            </th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in list.value.value.rows" :key="row.id">
            <td v-if="labelled" class="tick">
              <NCheckbox
                :checked="chosen.includes(row.id)"
                :aria-label="`Choose ${row.name}`"
                @update:checked="(on: boolean) => (chosen = on ? [...chosen, row.id] : chosen.filter((id) => id !== row.id))"
              />
            </td>
            <td
              v-for="column in COLUMNS[register]"
              :key="column.key"
              :class="{ mono: column.as === 'mono', amount: column.as === 'money' || column.as === 'percent' }"
            >
              {{ shown(row, column) }}
            </td>
          </tr>
        </tbody>
      </table>
      <p v-else class="soft">Nothing in {{ NAMES[register].toLowerCase() }} matches “{{ q }}”.</p>
      <p v-if="list.value.value.more"><NButton @click="(pages++, list.load())">Show 50 more</NButton></p>
    </section>
    <div v-else class="bones wait" />
  </div>
</template>

<style scoped src="../kit/page.css"></style>
<style scoped>
.tick {
  width: 32px;
}
</style>
