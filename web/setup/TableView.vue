<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, ref, watch } from 'vue'
import { takeTable } from '#contract/setup'
import type { TableReport } from '#contract/setup'
import { counted } from '#core/kit'
import { TABLE_KINDS } from '#core/setup'
import type { TableKind } from '#core/setup'
import { rowsNamed, named, FileEntry, ChoiceEntry, ListEntry, call, CallProblem, useUndo, useVocabulary } from '#web/kit'
import SetupTabs from './SetupTabs.vue'

/** People and places from a file: what it would do is shown before anything is done. */
const words = useVocabulary()
const siteId = ref<number | null>(null)
void words.ensure().then(() => (siteId.value = words.lists?.sites[0]?.id ?? null))
const what = ref<TableKind>('people')
const file = ref<File | null>(null)
const matching = ref<string[] | null>(null)
const report = ref<TableReport | null>(null)
const wrong = ref('')
const busy = ref(false)
const said = useUndo()
const NAMES: Record<TableKind, string> = { people: 'People', places: 'Places' }
const good = computed(() => (report.value ? report.value.fresh + report.value.changed : 0))

async function send(take: boolean): Promise<void> {
  if (!file.value || siteId.value === null) return
  busy.value = true
  wrong.value = ''
  try {
    const asked = { what: what.value, siteId: siteId.value, name: file.value.name, matching: matching.value?.join(','), ...(take ? { take } : {}) }
    report.value = await call(takeTable, asked, { file: file.value })
    matching.value = report.value.columns.map((column) => column.field ?? '')
    if (take) said.say(`${counted(report.value.fresh, 'row')} added, ${counted(report.value.changed, 'row')} changed.`)
  } catch (error) {
    if (!(error instanceof CallProblem)) throw error
    wrong.value = error.reasons[0]?.sentence ?? error.message
    report.value = null
  } finally {
    busy.value = false
  }
}
function choose([chosen]: File[]): void {
  file.value = chosen ?? null
  matching.value = null
  report.value = null
  void send(false)
}
function rematch(index: number, field: string | null): void {
  const code = field ?? ''
  matching.value = matching.value!.map((one, at) => (at === index ? code : code && one === code ? '' : one))
  void send(false)
}
watch([what, siteId], () => {
  matching.value = null
  report.value = null
  void send(false)
})
</script>

<template>
  <div class="page">
    <header>
      <h1>Setup</h1>
      <SetupTabs />
    </header>
    <section aria-label="The file">
      <h2>People and places from a table</h2>
      <p class="soft">A CSV file with a heading line. Nothing is changed until you say so; an empty cell leaves what is there, and nothing is ever removed.</p>
      <div class="choices">
        <ChoiceEntry id="table-what" v-model="what" label="What is in it" :options="named(TABLE_KINDS, NAMES)" />
        <ListEntry id="table-site" v-model="siteId" label="For the site" :options="rowsNamed(words.lists?.sites)" />
        <FileEntry id="table-file" label="File" accept=".csv,text/csv,text/plain" @choose="choose" />
      </div>
      <p v-if="busy" class="soft" role="status">Reading the file …</p>
      <p v-if="wrong" class="problem" role="alert">{{ wrong }}</p>
    </section>
    <template v-if="report">
      <section aria-label="Columns">
        <h2>Columns</h2>
        <table class="plain-table">
          <thead>
            <tr>
              <th>In the file</th>
              <th>For example</th>
              <th>Is</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(column, index) in report.columns" :key="index">
              <td>{{ column.heading || `Column ${index + 1}` }}</td>
              <td class="soft">{{ column.sample }}</td>
              <td>
                <ListEntry
                  :id="`column-${index}`"
                  label-hidden
                  :label="`What “${column.heading}” is`"
                  clearable
                  placeholder="left out"
                  :model-value="column.field"
                  :options="report.fields.map((one) => ({ value: one.code, label: `${one.name}${one.required ? ' (needed)' : ''}` }))"
                  @update:model-value="rematch(index, $event)"
                />
              </td>
            </tr>
          </tbody>
        </table>
        <p v-for="one in report.unread" :key="one" class="problem" role="alert">{{ one }}</p>
      </section>
      <section v-if="!report.unread.length" aria-label="What it does">
        <h2>{{ report.taken ? 'Done' : 'What it would do' }}</h2>
        <p>
          <strong>{{ counted(report.rows, 'row') }}:</strong> {{ report.fresh }} new, {{ report.changed }} changed, {{ report.same }} as they stand already,
          {{ report.badCount }} not taken.
        </p>
        <p v-if="!report.taken">
          <NButton v-if="good" type="primary" :disabled="busy" @click="send(true)">
            {{ report.badCount ? `Take the ${counted(good, 'good row')} alone` : `Take ${counted(good, 'row')}` }}
          </NButton>
          <span v-else class="soft">Nothing in it is new.</span>
        </p>
        <template v-if="report.bad.length">
          <h3>Not taken</h3>
          <table class="plain-table">
            <thead>
              <tr>
                <th class="amount">Line</th>
                <th>Why</th>
                <th>What stands there</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="row in report.bad" :key="row.line">
                <td class="mono amount">{{ row.line }}</td>
                <td>{{ row.sentences.join(' ') }}</td>
                <td class="soft">{{ row.cells.join(' · ').slice(0, 160) }}</td>
              </tr>
            </tbody>
          </table>
          <p v-if="report.badCount > report.bad.length" class="soft">And {{ report.badCount - report.bad.length }} more.</p>
        </template>
      </section>
    </template>
  </div>
</template>

<style scoped src="../kit/page.css"></style>
<style scoped>
.choices {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(220px, 1fr));
  gap: 8px 16px;
  max-width: 860px;
}
</style>
