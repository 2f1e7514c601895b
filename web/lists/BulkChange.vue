<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, ref, watch } from 'vue'
import { changeRecords } from '#contract/lists'
import type { ChangedRow, RecordLine } from '#contract/lists'
import { KINDS } from '#contract/portraits'
import { counted } from '#core/kit'
import type { Permission } from '#core/people'
import type { FieldValue, RegisterName } from '#core/registers'
import { call, CallProblem, ListEntry, useSession } from '#web/kit'
import { EntryField } from '#web/portraits'
import RowResults from './RowResults.vue'

/** One field of every marked record, or all of them retired; how each fared is told row by row, and taken back. */
const props = defineProps<{ register: RegisterName; lines: RecordLine[] }>()
const emit = defineEmits<{ clear: []; done: []; unmark: [number[]] }>()
const session = useSession()
const kind = computed(() => KINDS[props.register])
const mayEdit = computed(() => session.can(kind.value.edit.may as Permission))
const field = ref<string | null>(null)
const value = ref<FieldValue>(null)
const said = ref('')
const problem = ref('')
const busy = ref(false)
const result = ref<{ field: string; rows: ChangedRow[] } | null>(null)

const RETIRE = 'retired'
/** What tells records apart is not the same for several. */
const ONE_ONLY = new Set(['code', 'tag', 'name', 'serial', 'email', 'iban', 'successorId'])
const fields = computed(() =>
  Object.entries(kind.value.fields).filter(([name, one]) => !one.fixed && !ONE_ONLY.has(name) && (!one.may || session.can(one.may))),
)
const choices = computed(() => [
  ...fields.value.map(([name, one]) => ({ value: name, label: one.label })),
  { value: RETIRE, label: props.lines.every((line) => line.retired) ? 'Take into use again' : 'Retire' },
])
const nameOf = (name: string) => kind.value.fields[name]?.label ?? 'Retired'
const asked = computed(() => (field.value && field.value !== RETIRE ? kind.value.fields[field.value]! : null))
watch(field, () => {
  value.value = null
  said.value = problem.value = ''
})
watch(
  () => props.register,
  () => (field.value = null),
)

async function go(): Promise<void> {
  if (!field.value) return
  if (asked.value?.needed && (value.value === null || value.value === '')) {
    problem.value = 'Say to what: this is needed, and cannot be emptied.'
    return
  }
  const to = field.value === RETIRE ? Number(!props.lines.every((line) => line.retired)) : value.value
  await send(
    field.value,
    props.lines.map(({ id, version }) => ({ id, version, value: to })),
  )
}
async function send(name: string, items: { id: number; version: number; value: FieldValue }[]): Promise<void> {
  if (busy.value) return
  busy.value = true
  problem.value = ''
  try {
    const { rows } = await call(changeRecords, { register: props.register, field: name, items })
    result.value = { field: name, rows }
    field.value = null
    emit(
      'unmark',
      rows.filter((row) => row.changed).map((row) => row.id),
    )
    emit('done')
  } catch (error) {
    if (!(error instanceof CallProblem)) throw error
    problem.value = error.reasons[0]?.sentence ?? error.message
  } finally {
    busy.value = false
  }
}
const went = computed(() => result.value?.rows.filter((row) => row.changed) ?? [])
const results = computed(() =>
  (result.value?.rows ?? []).map((row) => ({
    id: row.id,
    name: row.number || String(row.id),
    went: row.changed,
    says: row.changed ? 'Changed' : row.reasons.map((reason) => reason.sentence).join(' '),
  })),
)
const takeBack = () =>
  send(
    result.value!.field,
    went.value.map(({ id, version, before }) => ({ id, version, value: before })),
  )
</script>

<template>
  <form v-if="mayEdit && (lines.length || result)" class="bulk" aria-label="Marked records" @submit.prevent="go" @keydown.ctrl.enter.prevent="go">
    <template v-if="lines.length">
      <strong>{{ counted(lines.length, 'record') }} marked</strong>
      <ListEntry id="bulk-field" v-model="field" class="choice" label-hidden label="What to change" placeholder="Change in all of them …" :options="choices" />
      <EntryField
        v-if="asked"
        :id="`bulk-${field}`"
        :key="field!"
        v-model="value"
        class="value"
        :field="{ ...asked, needed: undefined }"
        :said="said"
        @named="said = $event"
      />
      <NButton v-if="field" type="primary" attr-type="submit" :disabled="busy"
        >{{ field === RETIRE ? choices.at(-1)!.label : value === null || value === '' ? 'Empty it' : 'Change' }} <kbd>Ctrl Enter</kbd></NButton
      >
      <NButton @click="emit('clear')">Unmark</NButton>
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    </template>
    <RowResults
      v-if="result"
      :title="nameOf(result.field)"
      :heading="`${nameOf(result.field)}: ${went.length} of ${result.rows.length} changed`"
      one="record"
      :rows="results"
      :take-back="`Take back the ${went.length} that changed`"
      :busy="busy"
      @close="result = null"
      @take-back="takeBack"
    />
  </form>
</template>

<style scoped src="./bulk.css"></style>
<style scoped>
.choice,
.value {
  width: 220px;
}
</style>
