<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, ref, watch } from 'vue'
import { changeRecords } from '#contract/lists'
import type { ChangedRow, RecordLine } from '#contract/lists'
import { KINDS } from '#contract/portraits'
import { counted } from '#core/kit'
import type { Permission } from '#core/people'
import type { FieldValue, RegisterName } from '#core/registers'
import { call, CallProblem, DialogBox, ListEntry, useSession } from '#web/kit'
import { EntryField } from '#web/portraits'

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
const stayed = computed(() => result.value?.rows.filter((row) => !row.changed) ?? [])
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
    <DialogBox v-if="result" :title="nameOf(result.field)" wide @close="result = null">
      <h1>{{ nameOf(result.field) }}: {{ went.length }} of {{ result.rows.length }} changed</h1>
      <p v-if="stayed.length" class="soft">
        {{ counted(stayed.length, 'record') }} stayed as before and {{ stayed.length === 1 ? 'is' : 'are' }} still marked.
      </p>
      <div class="rows">
        <table class="plain-table">
          <thead>
            <tr>
              <th>Record</th>
              <th>What happened</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="row in [...stayed, ...went]" :key="row.id" :class="{ stayed: !row.changed }">
              <td>{{ row.number || row.id }}</td>
              <td>{{ row.changed ? 'Changed' : row.reasons.map((reason) => reason.sentence).join(' ') }}</td>
            </tr>
          </tbody>
        </table>
      </div>
      <p class="acts">
        <NButton type="primary" data-first @click="result = null">Close</NButton>
        <NButton v-if="went.length" :disabled="busy" @click="takeBack">Take back the {{ went.length }} that changed</NButton>
      </p>
    </DialogBox>
  </form>
</template>

<style scoped>
.bulk {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  padding: 8px 12px;
  background: var(--shoal);
  border-top: 1px solid var(--line);
}
.choice,
.value {
  width: 220px;
}
.problem {
  flex-basis: 100%;
}
.rows {
  max-height: 50vh;
  overflow: auto;
  margin: 10px 0;
}
.stayed td:nth-child(2) {
  color: var(--buoy);
}
.acts {
  display: flex;
  gap: 8px;
}
td {
  overflow-wrap: anywhere;
}
</style>
