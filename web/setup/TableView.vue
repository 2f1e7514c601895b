<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, ref, watch } from 'vue'
import { RouterLink, useRoute } from 'vue-router'
import { KINDS } from '#contract/portraits'
import { takeTable } from '#contract/setup'
import { counted } from '#core/kit'
import type { Permission } from '#core/people'
import { REGISTER_NAMES } from '#core/registers'
import { TABLE_KINDS } from '#core/setup'
import type { TableKind } from '#core/setup'
import { rowsNamed, FileEntry, ListEntry, call, useSession, useTaking, useUndo, useVocabulary } from '#web/kit'
import SetupTabs from './SetupTabs.vue'

/** Records of a register from a file: what it would do is shown before anything is done. */
const route = useRoute()
const session = useSession()
const words = useVocabulary()
const siteId = ref<number | null>(null)
void words.ensure().then(() => (siteId.value = words.lists?.sites[0]?.id ?? null))
const mine = TABLE_KINDS.filter((kind) => session.can(KINDS[kind].edit.may as Permission))
const from = mine.find((kind) => kind === route.params.register)
const what = ref<TableKind>(from ?? 'people')
const matching = ref<string[] | null>(null)
const undo = useUndo()
const { file, report, wrong, busy, choose, look, take } = useTaking(async (chosen, taking) => {
  const asked = { what: what.value, siteId: siteId.value!, name: chosen.name, matching: matching.value?.join(','), ...(taking ? { take: true } : {}) }
  const answer = await call(takeTable, asked, { file: chosen })
  matching.value = answer.columns.map((column) => column.field ?? '')
  return answer
})
const good = computed(() => (report.value ? report.value.fresh + report.value.changed : 0))

async function takeIn(): Promise<void> {
  if (await take()) undo.say(`${counted(report.value!.fresh, 'row')} added, ${counted(report.value!.changed, 'row')} changed.`)
}
function chooseFile(files: File[]): void {
  matching.value = null
  choose(files)
}
function rematch(index: number, field: string | null): void {
  const code = field ?? ''
  matching.value = matching.value!.map((one, at) => (at === index ? code : code && one === code ? '' : one))
  void look()
}
watch([what, siteId], () => {
  matching.value = null
  report.value = null
  void look()
})
</script>

<template>
  <div class="page">
    <header>
      <h1>{{ from ? 'Registers' : 'Setup' }}</h1>
      <SetupTabs v-if="!from" />
      <RouterLink v-else :to="`/registers/${from}`">{{ REGISTER_NAMES[from] }}</RouterLink>
    </header>
    <section aria-label="The file">
      <h2>Records from a table</h2>
      <p class="soft">A CSV file with a heading line. Nothing is changed until you say so; an empty cell leaves what is there, and nothing is ever removed.</p>
      <div class="choices">
        <ListEntry id="table-what" v-model="what" label="What is in it" :options="mine.map((kind) => ({ value: kind, label: REGISTER_NAMES[kind] }))" />
        <ListEntry id="table-site" v-model="siteId" label="For the site" :options="rowsNamed(words.lists?.sites)" />
        <FileEntry id="table-file" :press="file ? file.name : 'Choose a file'" label="File" accept=".csv,text/csv,text/plain" @choose="chooseFile" />
      </div>
      <p v-if="busy" class="soft" role="status">Reading the file …</p>
      <p v-if="wrong" class="problem" role="alert">{{ wrong }}</p>
    </section>
    <template v-if="report">
      <p v-for="one in report.unread" :key="one" class="problem" role="alert">{{ one }}</p>
      <section v-if="!report.unread.length" aria-label="What it does">
        <h2>{{ report.taken ? 'Done' : 'What it would do' }}</h2>
        <p>
          <strong>{{ counted(report.rows, 'row') }}:</strong> {{ report.fresh }} new, {{ report.changed }} changed, {{ report.same }} as they stand already,
          {{ report.badCount }} not taken.
        </p>
        <p v-if="!report.taken">
          <NButton v-if="good" type="primary" :disabled="busy" @click="takeIn">
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
                <td class="soft">{{ row.cells.filter(Boolean).join(' · ').slice(0, 160) }}</td>
              </tr>
            </tbody>
          </table>
          <p v-if="report.badCount > report.bad.length" class="soft">And {{ report.badCount - report.bad.length }} more.</p>
        </template>
      </section>
      <section aria-label="Columns">
        <h2>Columns</h2>
        <table class="plain-table columns">
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
.columns td {
  vertical-align: middle;
}
</style>
