<script setup lang="ts">
import { NRadio, NRadioGroup } from 'naive-ui/es/radio'
import { NButton } from 'naive-ui/es/button'
import { NSelect } from 'naive-ui/es/select'
import { computed, nextTick, onMounted, ref } from 'vue'
import { isAmount, isDay, isOfDays, isSpan } from '#core/lists'
import type { Clause, ListField, ListKind } from '#core/lists'
import { FieldFrame, TextEntry, DialogBox, exampleAmount, readTyped, useFormDraft, writtenAs, useVocabulary } from '#web/kit'
import type { Choice } from '#web/kit'
import { choiceLabel } from '#web/portraits'
import { finderFor } from './finders'

/** What one field has to be: made new, or changed. */
const props = defineProps<{ kind: ListKind; field: ListField; clause: Clause | null; names: Record<string, string> }>()
const emit = defineEmits<{ set: [Clause]; close: [] }>()
const words = useVocabulary()
void words.ensure()
const finder = props.field.register ? finderFor(props.field.register) : {}

type How = 'any' | 'not' | 'none' | 'some'
const { form, drop } = useFormDraft(`filter-${props.kind}-${props.field.name}-${JSON.stringify(props.clause)}`, {
  how: (props.clause?.empty === true ? 'none' : props.clause?.empty === false ? 'some' : props.clause?.not ? 'not' : 'any') as How,
  values: props.clause?.any ?? [],
  text: props.clause?.any?.[0] ?? '',
  from: shown(props.clause?.from),
  to: shown(props.clause?.to),
})
const wrong = ref('')
const found = ref<Choice[]>([])
const known = ref(new Map(Object.entries(props.names)))

/** Amounts are typed as people write them. */
function shown(end: string | undefined): string {
  const { shape } = props.field
  if (end === undefined) return ''
  if (shape === 'money' || shape === 'percent') return writtenAs(shape, end)
  return shape === 'number' ? writtenAs('quantity', end) : end
}
const remote = !!finder.find
const options = computed<Choice[]>(() => {
  const { shape, choices } = props.field
  if (shape === 'choice') return Object.keys(choices!).map((value) => ({ value, label: choiceLabel(choices!, value) }))
  const listed = remote ? found.value : (finder.choices?.() ?? [])
  const missing = form.values.filter((value) => !listed.some((one) => String(one.value) === value))
  return [...listed.map((one) => ({ ...one, value: String(one.value) })), ...missing.map((value) => ({ value, label: known.value.get(value) ?? value }))]
})
let asked = ''
async function look(q: string): Promise<void> {
  asked = q
  const rows = await finder.find!(q)
  for (const row of rows) known.value.set(String(row.value), row.label)
  if (q === asked) found.value = rows
}
onMounted(() => {
  if (remote) void look('')
  void nextTick(() => document.getElementById('filter-value')?.focus())
})

const open = ref(false)
/** A list of several has its entry only while it is open: what is typed on it opens it, and is typed there. */
async function typeIn(event: KeyboardEvent): Promise<void> {
  const onList = event.target instanceof HTMLElement && event.target.matches('.n-base-selection-tags')
  if (!onList || event.key.length !== 1 || event.key === ' ' || event.ctrlKey || event.altKey || event.metaKey) return
  event.preventDefault()
  open.value = true
  await nextTick()
  setTimeout(() => {
    const entry = document.getElementById('filter-value')
    if (!(entry instanceof HTMLInputElement)) return
    entry.focus()
    entry.value = event.key
    entry.dispatchEvent(new Event('input', { bubbles: true }))
  })
}

const HOWS = computed(() => {
  const { shape, empties } = props.field
  const list = shape === 'text' ? { any: 'contains', not: 'does not contain' } : isSpan(shape) ? { any: 'is within' } : { any: 'is', not: 'is not' }
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

/** The amount as the address holds it, or null when it cannot be read. */
function amount(typed: string): string | null {
  const { shape } = props.field
  if (shape === 'count') return /^\d{1,9}$/.test(typed) ? typed : null
  const read = readTyped(shape === 'number' ? 'quantity' : (shape as 'money' | 'percent'), typed)
  return read.problem !== undefined || read.value === null ? null : String(read.value)
}
function example(): string {
  const { shape } = props.field
  if (isOfDays(shape)) return 'Write a day like 2026-11-25, today, -30d or 7d.'
  if (shape === 'money') return `Write an amount like ${exampleAmount()}.`
  return shape === 'percent' ? 'Write a share like 12.5.' : shape === 'number' ? 'Write a number.' : 'Write a whole number.'
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
  const { name, shape } = props.field
  if (form.how === 'none' || form.how === 'some') return keep({ field: name, empty: form.how === 'none' })
  const not = form.how === 'not' ? { not: true } : {}
  if (shape === 'text' || shape === 'words') {
    if (!form.text.trim()) wrong.value = 'Write what to look for.'
    else keep({ field: name, ...not, any: [form.text.trim()] })
    return
  }
  if (shape === 'flag') return keep({ field: name, any: [form.values[0] === 'no' ? 'no' : 'yes'] })
  if (isSpan(shape)) {
    const read = (typed: string) => (isAmount(shape) ? amount(typed) : isDay(typed) ? typed : null)
    const ends = [form.from.trim(), form.to.trim()].map((typed) => (typed ? read(typed) : undefined))
    if (ends.includes(null)) wrong.value = example()
    else if (!ends[0] && !ends[1]) wrong.value = isAmount(shape) ? 'Write from how much, to how much, or both.' : 'Write from when, to when, or both.'
    else keep({ field: name, ...(ends[0] ? { from: ends[0] } : {}), ...(ends[1] ? { to: ends[1] } : {}) })
    return
  }
  if (!form.values.length) wrong.value = 'Choose at least one.'
  else keep({ field: name, ...not, any: form.values })
}
</script>

<template>
  <DialogBox :title="`Filter by ${field.label}`" @close="$emit('close')">
    <form class="form" @submit.prevent="set" @keydown.ctrl.enter.capture.prevent.stop="set">
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
        <FieldFrame v-if="field.shape === 'choice' || field.shape === 'named'" id="filter-value" data-first label="One of" @keydown="typeIn">
          <NSelect
            v-model:value="form.values"
            v-model:show="open"
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
        <template v-else-if="isSpan(field.shape)">
          <div class="pair">
            <TextEntry id="filter-value" v-model="form.from" label="From" mono :placeholder="isOfDays(field.shape) ? '2026-11-01, today, -30d' : ''" />
            <TextEntry
              id="filter-to"
              v-model="form.to"
              :label="isOfDays(field.shape) ? 'To, that day too' : 'To'"
              mono
              :placeholder="isOfDays(field.shape) ? '2026-11-30, 7d' : ''"
            />
          </div>
          <p v-if="isOfDays(field.shape)" class="presets">
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
