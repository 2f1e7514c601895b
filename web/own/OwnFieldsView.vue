<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, ref } from 'vue'
import { addOwnField, editOwnField } from '#contract/own'
import type { OwnFieldEdit, OwnFieldRow } from '#contract/own'
import { LIST_NAMES } from '#core/lists'
import { OWN_KINDS, OWN_SHAPE_NAMES, OWN_SHAPES } from '#core/own'
import type { OwnKind, OwnShape } from '#core/own'
import { call, CallProblem, DraftNote, KeptText, ListEntry, named, TextEntry, useFormDraft, useUndo } from '#web/kit'
import { SetupTabs } from '#web/setup'
import ChoicesForm from './ChoicesForm.vue'
import { useOwnFields } from './store'

/** The fields a site adds to what there is: what they are of, what is written in them, and in which order they are shown. */
const own = useOwnFields()
void own.ensure()
const undo = useUndo()
const kind = ref<OwnKind>('assets')
const rows = computed(() => own.rows.filter((row) => row.kind === kind.value))
const inUse = computed(() => rows.value.filter((row) => !row.retired))
const problem = ref<CallProblem | null>(null)
const at = (field: string) => problem.value?.reasons.find((reason) => reason.field === field)?.sentence
const choosing = ref<OwnFieldRow | null>(null)
const { form, kept, drop } = useFormDraft('own-field', { label: '', shape: 'text' as OwnShape, unit: '', choices: '' })

async function change(row: OwnFieldRow, to: Omit<OwnFieldEdit, 'id' | 'version'>, done: string): Promise<boolean> {
  try {
    own.take(await call(editOwnField, { id: row.id, version: row.version, ...to }))
    undo.say(done)
    return true
  } catch (error) {
    if (!(error instanceof CallProblem)) throw error
    undo.say(error.reasons[0]?.sentence ?? error.message, undefined, true)
    return false
  }
}
async function add(): Promise<void> {
  problem.value = null
  const choices = form.choices
    .split('\n')
    .map((line) => line.trim())
    .filter(Boolean)
  try {
    own.take(
      await call(addOwnField, {
        kind: kind.value,
        label: form.label.trim(),
        shape: form.shape,
        ...(form.shape === 'number' ? { unit: form.unit.trim() } : {}),
        ...(form.shape === 'choice' ? { choices } : {}),
      }),
    )
    undo.say(`“${form.label.trim()}” stands on every one of them from now on.`)
    drop()
  } catch (error) {
    if (!(error instanceof CallProblem)) throw error
    problem.value = error
  }
}
/** Before the one above it, or after the one below. */
function move(index: number, by: -1 | 1): void {
  const row = inUse.value[index]!
  const before = by === -1 ? inUse.value[index - 1] : inUse.value[index + 2]
  void change(row, { before: before?.id ?? null }, `“${row.label}” stands elsewhere now.`)
}
</script>

<template>
  <div class="page">
    <header>
      <h1>Setup</h1>
      <SetupTabs />
    </header>
    <section aria-label="Own fields">
      <h2>Own fields</h2>
      <p class="soft">
        What your sites keep beside what is there: on the Sheet or the Portrait, in lists and what is taken away from them, on the timeline; of requests in
        mails too.
      </p>
      <ListEntry id="own-kind" v-model="kind" class="kind" inline label="Of" :options="named(OWN_KINDS, LIST_NAMES)" />
      <table v-if="rows.length" class="plain-table">
        <thead>
          <tr>
            <th>Called</th>
            <th>What it is</th>
            <th class="right">Written in</th>
            <th>Order</th>
            <th><span class="hidden">Use</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in rows" :key="row.id" :class="{ gone: row.retired }">
            <td>
              <span v-if="row.retired">{{ row.label }}</span>
              <KeptText
                v-else
                wide
                :value="row.label"
                :most="60"
                :name="`What “${row.label}” is called`"
                :keep="(label) => change(row, { label }, 'It is called so now.')"
              />
            </td>
            <td>
              {{ OWN_SHAPE_NAMES[row.shape] }}<template v-if="row.unit">, {{ row.unit }}</template>
              <NButton v-if="row.shape === 'choice' && !row.retired" text type="primary" class="link" @click="choosing = row">{{
                row.choices.map((one) => one.name).join(', ')
              }}</NButton>
            </td>
            <td class="right mono">{{ row.used }}</td>
            <td>
              <template v-if="!row.retired">
                <NButton size="tiny" :disabled="inUse[0]?.id === row.id" :aria-label="`“${row.label}” further up`" @click="move(inUse.indexOf(row), -1)"
                  >↑</NButton
                >
                <NButton size="tiny" :disabled="inUse.at(-1)?.id === row.id" :aria-label="`“${row.label}” further down`" @click="move(inUse.indexOf(row), 1)"
                  >↓</NButton
                >
              </template>
            </td>
            <td class="right">
              <NButton v-if="row.retired" size="small" @click="change(row, { retired: false }, `“${row.label}” is in use again, with what was written in it.`)"
                >Take into use again</NButton
              >
              <NButton v-else size="small" @click="change(row, { retired: true }, `“${row.label}” is out of use. What was written in it stays.`)"
                >Retire</NButton
              >
            </td>
          </tr>
        </tbody>
      </table>
      <p v-else class="soft">Nothing was added to {{ LIST_NAMES[kind].toLowerCase() }} yet.</p>
    </section>
    <section aria-label="New field">
      <h2>New field of {{ LIST_NAMES[kind].toLowerCase() }}</h2>
      <form class="new" @submit.prevent="add">
        <DraftNote :kept="kept" @drop="drop" />
        <TextEntry id="own-label" v-model="form.label" label="Called" :max="60" :problem="at('label')" />
        <ListEntry id="own-shape" v-model="form.shape" label="What it is" :options="named(OWN_SHAPES, OWN_SHAPE_NAMES)" />
        <TextEntry v-if="form.shape === 'number'" id="own-unit" v-model="form.unit" label="Unit" :max="16" :problem="at('unit')" />
        <TextEntry
          v-if="form.shape === 'choice'"
          id="own-choices"
          v-model="form.choices"
          class="whole"
          long
          label="What can be chosen, one on a line"
          :problem="at('choices')"
        />
        <p><NButton type="primary" attr-type="submit" :disabled="!form.label.trim()">Add the field</NButton></p>
      </form>
      <p v-if="problem && !at('label') && !at('choices') && !at('unit')" class="problem" role="alert">{{ problem.message }}</p>
    </section>
    <ChoicesForm
      v-if="choosing"
      :key="choosing.id"
      :field="choosing"
      :keep="(choices) => change(choosing!, { choices }, 'These can be chosen now.')"
      @close="choosing = null"
    />
  </div>
</template>

<style scoped src="../kit/page.css"></style>
<style scoped>
.kind {
  width: 240px;
}
.right {
  text-align: right;
}
td {
  vertical-align: middle;
}
td .link {
  margin-left: 10px;
}
.gone td:first-child {
  text-decoration: line-through;
}
.new {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(220px, 1fr));
  gap: 10px 14px;
  align-items: end;
  max-width: 760px;
}
.whole {
  grid-column: 1 / -1;
}
</style>
