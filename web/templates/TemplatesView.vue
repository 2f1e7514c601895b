<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, ref } from 'vue'
import { RouterLink, useRoute } from 'vue-router'
import { listTemplates, takeBackBatch } from '#contract/templates'
import type { Batch, Template } from '#contract/templates'
import { counted } from '#core/kit'
import { ORDER_KIND_NAMES } from '#core/orders'
import { PRIORITY_NAMES } from '#core/requests'
import { call, LoadedPart, shortTime, useRead, useUndo } from '#web/kit'
import { sayRefusal } from '#web/sheets'
import MakeOrders from './MakeOrders.vue'
import TemplateForm from './TemplateForm.vue'

/** Templates that make many orders at once, and what was made from them last. */
const route = useRoute()
const undo = useUndo()
const read = useRead(listTemplates, {}, { touchedBy: ({ kind }) => kind.startsWith('template.'), holds: true })
const rows = computed(() => (read.value.value?.rows ?? []).filter((row) => !row.retired || showRetired.value))
const showRetired = ref(false)
const retired = computed(() => (read.value.value?.rows ?? []).filter((row) => row.retired).length)
const open = ref<{ id: number; what: 'make' | 'edit' } | 'new' | null>(null)
/** Rows that were marked elsewhere come along in the address. */
const numbers = (value: unknown) =>
  String(value ?? '')
    .split(',')
    .map(Number)
    .filter(Boolean)
const brought = computed(() => ({ placeIds: numbers(route.query.places), assetIds: numbers(route.query.assets) }))
const many = computed(() => brought.value.placeIds.length + brought.value.assetIds.length)
const isOpen = (row: Template, what: 'make' | 'edit') => open.value !== null && open.value !== 'new' && open.value.id === row.id && open.value.what === what
const kept = ref<{ batch: number; rows: { id: number; number: string; sentence: string }[] } | null>(null)

async function takeBack(batch: Batch): Promise<void> {
  try {
    const { taken, kept: stay } = await call(takeBackBatch, { id: batch.id })
    kept.value = stay.length ? { batch: batch.id, rows: stay } : null
    undo.say(`${counted(taken, 'order')} taken back${stay.length ? `; ${stay.length} stay, since somebody has begun` : ''}.`)
  } catch (error) {
    sayRefusal(error)
  }
  await read.load()
}
function done(): void {
  open.value = null
  void read.load()
}
</script>

<template>
  <div class="page">
    <header>
      <h1>Templates</h1>
      <RouterLink to="/lists">Lists</RouterLink>
      <NButton v-if="read.value.value?.mayEdit" type="primary" @click="open = 'new'">New template</NButton>
    </header>
    <LoadedPart :part="read">
      <section aria-label="Templates">
        <p v-if="many" role="status">
          <strong>{{ counted(many, many === brought.placeIds.length ? 'place' : many === brought.assetIds.length ? 'asset' : 'row') }} chosen.</strong> Press
          “Make orders” on the template they are made from.
        </p>
        <TemplateForm v-if="open === 'new'" @leave="open = null" @kept="done" />
        <p v-if="!rows.length && open !== 'new'" class="soft">
          No template yet. A template holds what many orders have in common: rooms painted, detectors tested, radiators bled.
        </p>
        <article v-for="row in rows" :key="row.id" class="template" :class="{ retired: row.retired }" :aria-label="row.name">
          <div class="line">
            <h2>{{ row.name }}</h2>
            <span class="soft"
              >{{ ORDER_KIND_NAMES[row.kind] }}, {{ PRIORITY_NAMES[row.priority] }}{{ row.dueDays ? `, done within ${counted(row.dueDays, 'day')}` : ''
              }}{{ row.names.method ? `, by ${row.names.method}` : '' }};
              {{ row.names.payer ? `${row.names.payer} pays` : 'who pays for the place pays' }}</span
            >
            <span v-if="read.value.value!.mayEdit" class="acts">
              <NButton v-if="!row.retired" size="small" :type="many ? 'primary' : 'default'" @click="open = { id: row.id, what: 'make' }">Make orders</NButton>
              <NButton size="small" quaternary :aria-label="`Change ${row.name}`" @click="open = { id: row.id, what: 'edit' }">Change</NButton>
            </span>
          </div>
          <p class="mono">{{ row.summary }}</p>
          <TemplateForm v-if="isOpen(row, 'edit')" :template="row" @leave="open = null" @kept="done" />
          <MakeOrders v-if="isOpen(row, 'make')" :template="row" :brought="brought" @leave="open = null" @made="read.load()" />
        </article>
        <p v-if="retired">
          <NButton size="small" quaternary @click="showRetired = !showRetired">{{ showRetired ? 'Without those put away' : `${retired} put away` }}</NButton>
        </p>
      </section>
      <section v-if="read.value.value!.batches.length" aria-label="Made last">
        <h2>Made last</h2>
        <table class="plain-table">
          <thead>
            <tr>
              <th>When</th>
              <th>From</th>
              <th class="amount">Orders</th>
              <th>Led by</th>
              <th>By</th>
              <th></th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="batch in read.value.value!.batches" :key="batch.id">
              <td class="mono">{{ shortTime(batch.at) }}</td>
              <td>{{ batch.template }}</td>
              <td class="amount mono">{{ batch.orders }}</td>
              <td>
                <RouterLink v-if="batch.lead" class="mono" :to="`/desk/planning/order/${batch.lead.id}`">{{ batch.lead.number }}</RouterLink><span
                  v-else
                  class="soft"
                  >each by itself</span
                >
              </td>
              <td>{{ batch.by }}</td>
              <td>
                <span v-if="batch.takenBack" class="soft">taken back</span>
                <NButton v-else-if="read.value.value!.mayEdit" size="tiny" :aria-label="`Take back ${batch.template}`" @click="takeBack(batch)"
                  >Take back</NButton
                >
                <p v-for="one in kept?.batch === batch.id ? kept.rows : []" :key="one.id" class="soft">
                  <RouterLink class="mono" :to="`/desk/planning/order/${one.id}`">{{ one.number }}</RouterLink> stays: {{ one.sentence }}
                </p>
              </td>
            </tr>
          </tbody>
        </table>
      </section>
    </LoadedPart>
  </div>
</template>

<style scoped src="../kit/page.css"></style>
<style scoped>
.template {
  border-bottom: 1px solid var(--line);
  padding: 8px 0;
}
.template p {
  margin: 2px 0 0;
}
.retired {
  opacity: 0.7;
}
.line {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  align-items: baseline;
}
.acts {
  margin-left: auto;
}
td p {
  margin: 2px 0 0;
}
</style>
