<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { NCheckbox } from 'naive-ui/es/checkbox'
import { computed, ref, watch } from 'vue'
import { RouterLink } from 'vue-router'
import { makeOrders, previewOrders, takeBackBatch } from '#contract/templates'
import type { MadeRow, Selection, Template, ToMake } from '#contract/templates'
import { UNIFORMAT } from '#core/assets'
import { counted } from '#core/kit'
import { call, CallProblem, ChoiceEntry, FileEntry, freshKey, ListEntry, PickField, placeChoices, TextEntry, useFirstField, useSoon, useUndo } from '#web/kit'

/** What is chosen, what each would get, and the orders in one act. */
const props = defineProps<{ template: Template; brought: { placeIds: number[]; assetIds: number[] } }>()
const emit = defineEmits<{ leave: []; made: [] }>()
const undo = useUndo()
type From = 'marked' | 'spaces' | 'assets' | 'codes'
const hasMarked = props.brought.placeIds.length + props.brought.assetIds.length > 0
const FROM: { value: From; label: string }[] = [
  ...(hasMarked ? [{ value: 'marked' as const, label: 'What was marked' }] : []),
  { value: 'spaces', label: 'Spaces of a branch' },
  { value: 'assets', label: 'Assets of a branch' },
  { value: 'codes', label: 'Codes or a CSV' },
]
const from = ref<From>(hasMarked ? 'marked' : 'spaces')
const placeId = ref<number | null>(null)
const classCode = ref<string | null>(null)
const codes = ref('')
const lead = ref<'none' | 'new' | 'order'>('none')
const leadNumber = ref('')
const LEADS = [
  { value: 'none', label: 'Each by itself' },
  { value: 'new', label: 'Under a new lead order' },
  { value: 'order', label: 'Under an order' },
] as const
const CLASSES = Object.entries(UNIFORMAT).map(([value, name]) => ({ value, label: `${value} ${name}` }))
const rows = ref<ToMake[] | null>(null)
const unknown = ref<string[]>([])
const leftOut = ref(new Set<string>())
const despite = ref(new Set<string>())
const wrong = ref('')
const busy = ref(false)
const made = ref<{ batchId: number; lead: { id: number; number: string } | null; rows: MadeRow[] } | null>(null)
const key = ref(freshKey())
const form = ref<HTMLElement | null>(null)
useFirstField(form)

const selection = computed<Selection | null>(() => {
  if (from.value === 'marked') return { placeIds: props.brought.placeIds, assetIds: props.brought.assetIds }
  if (from.value === 'codes') return codes.value.trim() ? { codes: codes.value } : null
  if (placeId.value === null) return null
  return { within: { placeId: placeId.value, what: from.value, ...(from.value === 'assets' && classCode.value ? { classCode: classCode.value } : {}) } }
})
const says = (error: unknown): string => {
  if (!(error instanceof CallProblem)) throw error
  return error.reasons[0]?.sentence ?? error.message
}
async function look(): Promise<void> {
  const asked = selection.value
  made.value = null
  wrong.value = ''
  if (!asked) return void (rows.value = null)
  busy.value = true
  try {
    const found = await call(previewOrders, { id: props.template.id, ...asked })
    if (selection.value !== asked) return
    rows.value = found.rows
    unknown.value = found.unknown
    leftOut.value = new Set()
    despite.value = new Set()
  } catch (error) {
    rows.value = null
    wrong.value = says(error)
  } finally {
    busy.value = false
  }
}
const soon = useSoon(look, 300)
watch(selection, soon, { immediate: true })
watch([selection, lead, leadNumber, leftOut, despite], () => (key.value = freshKey()), { deep: true })
const isWanted = (row: ToMake) => !row.problem && (row.doubled ? despite.value.has(row.key) : !leftOut.value.has(row.key))
function want(row: ToMake, on: boolean): void {
  const set = row.doubled ? despite : leftOut
  if (row.doubled ? on : !on) set.value.add(row.key)
  else set.value.delete(row.key)
}
const wanted = computed(() => (rows.value ?? []).filter(isWanted).length)
const doubled = computed(() => (rows.value ?? []).filter((row) => row.doubled).length)
const MOST_SHOWN = 200

async function read([file]: File[]): Promise<void> {
  if (file) codes.value = (await file.text()).slice(0, 40_000)
}
async function make(): Promise<void> {
  if (!selection.value || !wanted.value) return
  busy.value = true
  wrong.value = ''
  try {
    const sent = {
      ...{ id: props.template.id, version: props.template.version, ...selection.value, lead: lead.value },
      ...(lead.value === 'order' ? { leadNumber: leadNumber.value.trim() } : {}),
      ...{ except: [...leftOut.value], doubled: [...despite.value] },
    }
    const now = await call(makeOrders, sent, { key: key.value })
    made.value = now
    rows.value = null
    const many = counted(now.rows.filter(({ order }) => order).length, 'order')
    undo.say(`${many} made.`, async () => {
      await call(takeBackBatch, { id: now.batchId })
      made.value = null
      emit('made')
    })
    emit('made')
  } catch (error) {
    wrong.value = says(error)
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <form ref="form" class="form" aria-label="Make orders" @submit.prevent="make" @keydown.ctrl.enter.prevent="make" @keydown.esc.stop="emit('leave')">
    <template v-if="!made">
      <div class="row">
        <ChoiceEntry id="make-from" v-model="from" label="For" :options="FROM" />
        <PickField
          v-if="from === 'spaces' || from === 'assets'"
          id="make-place"
          label="Branch"
          :value="placeId"
          :find="placeChoices"
          placeholder="Building, floor or grounds"
          @pick="placeId = $event === null ? null : Number($event)"
        />
        <ListEntry v-if="from === 'assets'" id="make-class" v-model="classCode" label="Class" clearable placeholder="Any" :options="CLASSES" />
        <FileEntry v-if="from === 'codes'" id="make-file" label="CSV" press="Choose a file" accept=".csv,.txt" @choose="read" />
      </div>
      <TextEntry v-if="from === 'codes'" id="make-codes" v-model="codes" long label="Codes of places or tags of assets, one a line" :max="40000" />
      <p v-if="busy && !rows" class="soft" role="status">Looking …</p>
      <template v-if="rows">
        <p role="status">
          <strong>{{ counted(wanted, 'order') }} would be made</strong> of {{ rows.length }} chosen<template v-if="doubled"
            >; {{ doubled }} would be doubled{{ despite.size ? '' : ' and are left out' }}</template
          >.
        </p>
        <p v-if="unknown.length" class="problem">
          Nothing here is called {{ unknown.slice(0, 12).join(', ') }}{{ unknown.length > 12 ? ` and ${unknown.length - 12} more` : '' }}.
        </p>
        <div class="scroll">
          <table class="plain-table" aria-label="What each would get">
            <thead>
              <tr>
                <th><span class="hidden">Made</span></th>
                <th>For</th>
                <th>Summary</th>
                <th>Payer</th>
                <th></th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="row in rows.slice(0, MOST_SHOWN)" :key="row.key">
                <td>
                  <NCheckbox
                    :checked="isWanted(row)"
                    :disabled="row.problem !== null"
                    :aria-label="`Make one for ${row.code}`"
                    @update:checked="(on: boolean) => want(row, on)"
                  />
                </td>
                <td>
                  <span class="mono">{{ row.code }}</span> {{ row.name }}<span v-if="row.place" class="soft">, {{ row.place }}</span>
                </td>
                <td>{{ row.summary }}</td>
                <td>{{ row.payer ?? '–' }}</td>
                <td>
                  <span v-if="row.problem" class="problem">{{ row.problem }}</span>
                  <template v-else-if="row.doubled"
                    >open already: <RouterLink class="mono" :to="`/desk/planning/order/${row.doubled.id}`">{{ row.doubled.number }}</RouterLink>
                    {{ row.doubled.summary }}</template
                  >
                </td>
              </tr>
            </tbody>
          </table>
        </div>
        <p v-if="rows.length > MOST_SHOWN" class="soft">{{ rows.length - MOST_SHOWN }} more are chosen and not shown.</p>
        <div class="row">
          <ChoiceEntry id="make-lead" v-model="lead" label="Put together" :options="LEADS" />
          <TextEntry v-if="lead === 'order'" id="make-lead-number" v-model="leadNumber" label="Which order" mono />
        </div>
      </template>
      <p v-if="wrong" class="problem" role="alert">{{ wrong }}</p>
      <div class="row">
        <NButton type="primary" attr-type="submit" :disabled="busy || !wanted || (lead === 'order' && !leadNumber.trim())">{{
          wanted ? `Make ${counted(wanted, 'order')}` : 'Make orders'
        }}</NButton>
        <NButton @click="emit('leave')">Leave it</NButton>
      </div>
    </template>
    <template v-else>
      <p role="status">
        <strong>{{ counted(made.rows.filter(({ order }) => order).length, 'order') }} made</strong>, as drafts<template v-if="made.lead"
          >, led by <RouterLink class="mono" :to="`/desk/planning/order/${made.lead.id}`">{{ made.lead.number }}</RouterLink></template
        >. They stand in Planning.
      </p>
      <ul class="made" aria-label="Made">
        <li v-for="row in made.rows" :key="row.key">
          <span class="mono">{{ row.code }}</span>
          <RouterLink v-if="row.order" class="mono" :to="`/desk/planning/order/${row.order.id}`">{{ row.order.number }}</RouterLink>
          <span v-else class="soft">{{ row.sentence }}</span>
        </li>
      </ul>
      <div class="row"><NButton @click="emit('leave')">Close</NButton></div>
    </template>
  </form>
</template>

<style scoped src="../stock/form.css"></style>
<style scoped>
.scroll {
  max-height: 360px;
  overflow: auto;
}
.form p {
  margin: 0;
}
.made {
  margin: 0;
  padding: 0;
  list-style: none;
  columns: 220px;
  max-height: 300px;
  overflow: auto;
}
.made li {
  display: flex;
  gap: 8px;
}
</style>
