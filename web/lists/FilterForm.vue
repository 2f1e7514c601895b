<script setup lang="ts">
import { NRadio, NRadioGroup } from 'naive-ui/es/radio'
import { NButton } from 'naive-ui/es/button'
import { NSelect } from 'naive-ui/es/select'
import { computed, nextTick, onMounted, ref } from 'vue'
import { isDay, listField } from '#core/lists'
import type { Clause, ListField, ListKind } from '#core/lists'
import { FieldFrame, TextEntry, DialogBox, exampleAmount, readTyped, useFormDraft, writtenAs, assetChoices, placeChoices, useVocabulary } from '#web/kit'
import type { Choice } from '#web/kit'

/** What one field has to be: made new, or changed. */
const props = defineProps<{ kind: ListKind; field: string; clause: Clause | null; names: Record<string, string> }>()
const emit = defineEmits<{ set: [Clause]; close: [] }>()
const words = useVocabulary()
void words.ensure()
const field = computed<ListField>(() => listField(props.kind, props.field)!)

type How = 'any' | 'not' | 'none' | 'some'
const { form, drop } = useFormDraft(`filter-${props.kind}-${props.field}-${JSON.stringify(props.clause)}`, {
  how: (props.clause?.empty === true ? 'none' : props.clause?.empty === false ? 'some' : props.clause?.not ? 'not' : 'any') as How,
  values: props.clause?.any ?? [],
  text: props.clause?.any?.[0] ?? '',
  from: shown(props.clause?.from),
  to: shown(props.clause?.to),
})
const wrong = ref('')
const found = ref<Choice[]>([])
const known = ref(new Map(Object.entries(props.names)))

/** Money is typed as people write it. */
function shown(end: string | undefined): string {
  return end === undefined ? '' : field.value.shape === 'money' ? writtenAs('money', end) : end
}
const remote = computed(() => field.value.register === 'place' || field.value.register === 'asset')
const options = computed<Choice[]>(() => {
  const { shape, choices, register } = field.value
  if (shape === 'choice') return Object.entries(choices!).map(([value, label]) => ({ value, label }))
  const lists = {
    category: words.choices((all) => all.categories),
    trade: words.choices((all) => all.trades),
    team: [{ value: 'mine', label: 'My team' }, ...words.choices((all) => all.teams)],
    account: [{ value: 'me', label: 'Me' }, ...words.choices((all) => all.accounts)],
    payer: words.choices((all) => all.payers),
    technician: words.choices((all) => all.technicians),
    vendor: words.choices((all) => all.vendors),
    place: [] as Choice[],
    asset: [] as Choice[],
  }
  const listed = remote.value ? found.value : lists[register!]
  const missing = form.values.filter((value) => !listed.some((one) => String(one.value) === value))
  return [...listed.map((one) => ({ ...one, value: String(one.value) })), ...missing.map((value) => ({ value, label: known.value.get(value) ?? value }))]
})
let asked = ''
async function look(q: string): Promise<void> {
  asked = q
  const rows = field.value.register === 'place' ? await placeChoices(q) : await assetChoices(q, null)
  for (const row of rows) known.value.set(String(row.value), row.label)
  if (q === asked) found.value = rows
}
onMounted(() => {
  if (remote.value) void look('')
  void nextTick(() => document.getElementById('filter-value')?.focus())
})

const HOWS = computed(() => {
  const { shape, empties } = field.value
  const list =
    shape === 'text' ? { any: 'contains', not: 'does not contain' } : shape === 'day' || shape === 'money' ? { any: 'is within' } : { any: 'is', not: 'is not' }
  return { ...list, ...(empties ? { some: 'has something', none: 'has nothing' } : {}) } as Record<string, string>
})
const DAYS = [
  ['today', 'Today'],
  ['-7d..', 'Last 7 days'],
  ['-30d..', 'Last 30 days'],
  ['..-1d', 'Before today'],
  ['today..7d', 'Next 7 days'],
] as const
function preset(span: string): void {
  const [first = '', last = first] = span.includes('..') ? span.split('..') : [span, span]
  form.from = first
  form.to = last
}

/** The amount in minor units, or null when it cannot be read; what was understood is shown back. */
function money(typed: string): string | null {
  const read = readTyped('money', typed)
  return read.problem !== undefined || read.value === null ? null : String(read.value)
}

function keep(clause: Clause): void {
  drop()
  emit('set', clause)
}
function leave(): void {
  drop()
  emit('close')
}
function set(): void {
  wrong.value = ''
  const { name, shape } = field.value
  if (form.how === 'none' || form.how === 'some') return keep({ field: name, empty: form.how === 'none' })
  const not = form.how === 'not' ? { not: true } : {}
  if (shape === 'text' || shape === 'words') {
    if (!form.text.trim()) wrong.value = 'Write what to look for.'
    else keep({ field: name, ...not, any: [form.text.trim()] })
    return
  }
  if (shape === 'flag') return keep({ field: name, any: [form.values[0] === 'no' ? 'no' : 'yes'] })
  if (shape === 'day' || shape === 'money') {
    const read = (typed: string) => (shape === 'day' ? (isDay(typed) ? typed : null) : money(typed))
    const ends = [form.from.trim(), form.to.trim()].map((typed) => (typed ? read(typed) : undefined))
    if (ends.includes(null)) wrong.value = shape === 'day' ? 'Write a day like 2026-11-25, today, -30d or 7d.' : `Write an amount like ${exampleAmount()}.`
    else if (!ends[0] && !ends[1]) wrong.value = 'Write from when, to when, or both.'
    else keep({ field: name, ...(ends[0] ? { from: ends[0] } : {}), ...(ends[1] ? { to: ends[1] } : {}) })
    return
  }
  if (!form.values.length) wrong.value = 'Choose at least one.'
  else keep({ field: name, ...not, any: form.values })
}
</script>

<template>
  <DialogBox :title="`Filter by ${field.label}`" @close="$emit('close')">
    <form class="form" @submit.prevent="set" @keydown.ctrl.enter.prevent="set">
      <h1>{{ field.label }}</h1>
      <NRadioGroup
        v-if="Object.keys(HOWS).length > 1 && field.shape !== 'flag' && field.shape !== 'words'"
        v-model:value="form.how"
        class="hows"
        role="radiogroup"
        aria-label="How"
      >
        <NRadio v-for="(label, value) in HOWS" :key="value" :value="value">{{ label }}</NRadio>
      </NRadioGroup>
      <template v-if="form.how === 'any' || form.how === 'not'">
        <FieldFrame v-if="field.shape === 'choice' || field.shape === 'named'" id="filter-value" label="One of">
          <NSelect
            v-model:value="form.values"
            multiple
            filterable
            :remote="remote"
            :options="options"
            placeholder="Type to find"
            :input-props="{ id: 'filter-value', 'aria-label': 'One of', autocomplete: 'off' }"
            @search="remote && look($event)"
          />
        </FieldFrame>
        <NRadioGroup
          v-else-if="field.shape === 'flag'"
          class="hows"
          role="radiogroup"
          :aria-label="field.label"
          :value="form.values[0] ?? null"
          @update:value="form.values = [$event]"
        >
          <NRadio value="yes" data-first>Yes</NRadio>
          <NRadio value="no">No</NRadio>
        </NRadioGroup>
        <template v-else-if="field.shape === 'day' || field.shape === 'money'">
          <div class="pair">
            <TextEntry id="filter-value" v-model="form.from" label="From" mono :placeholder="field.shape === 'day' ? '2026-11-01, today, -30d' : '0.00'" />
            <TextEntry id="filter-to" v-model="form.to" label="To, that day too" mono :placeholder="field.shape === 'day' ? '2026-11-30, 7d' : ''" />
          </div>
          <p v-if="field.shape === 'day'" class="presets">
            <NButton v-for="[span, label] in DAYS" :key="span" @click="preset(span)">{{ label }}</NButton>
          </p>
        </template>
        <TextEntry v-else id="filter-value" v-model="form.text" :label="field.shape === 'words' ? 'Words, in any order, as they begin' : 'Text'" :max="80" />
      </template>
      <p v-if="wrong" class="problem" role="alert">{{ wrong }}</p>
      <p class="acts">
        <NButton type="primary" attr-type="submit">Filter <kbd>Ctrl Enter</kbd></NButton>
        <NButton @click="leave">Leave it</NButton>
      </p>
    </form>
  </DialogBox>
</template>

<style scoped>
.form {
  display: grid;
  gap: 12px;
}
.hows,
.presets,
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
}
.presets {
  gap: 6px;
}
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
}
</style>
