<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { NCheckbox } from 'naive-ui/es/checkbox'
import { computed, ref, watch } from 'vue'
import { RouterLink } from 'vue-router'
import { giveCobie, listCobieBuildings, takeCobie } from '#contract/cobie'
import { COBIE_SHEET_NAMES, COBIE_STANDINGS } from '#core/cobie'
import type { CobieStanding } from '#core/cobie'
import { counted } from '#core/kit'
import { address, call, FileEntry, ListEntry, LoadedPart, rowsNamed, useRead, useSession, useTaking, useUndo, useVocabulary } from '#web/kit'

/** A building out as a COBie workbook, and one in: what it would do is shown, sheet by sheet, before anything is done. */
const session = useSession()
const words = useVocabulary()
const siteId = ref<number | null>(null)
void words.ensure().then(() => (siteId.value = words.lists?.sites[0]?.id ?? null))
const buildings = useRead(listCobieBuildings, {}, { touchedBy: ({ register }) => register === 'places' || register === 'assets' })
const own = ref(false)
const { file, report, wrong, busy, choose, look, take } = useTaking((chosen, taking) =>
  call(takeCobie, { siteId: siteId.value!, name: chosen.name, ...(own.value ? { own: true } : {}), ...(taking ? { take: true } : {}) }, { file: chosen }),
)
const undo = useUndo()
const NAMES: Record<CobieStanding, string> = { new: 'New', changed: 'Changed', same: 'As it is', bad: 'Cannot be taken', left: 'Left out' }
const sum = (standing: CobieStanding) => (report.value ? Object.values(report.value.counts).reduce((all, one) => all + one[standing], 0) : 0)
const good = computed(() => sum('new') + sum('changed'))
const sheets = computed(() => COBIE_SHEET_NAMES.filter((sheet) => report.value && COBIE_STANDINGS.some((one) => report.value!.counts[sheet][one])))
const mayOwn = computed(() => session.can('setup.edit'))

async function takeIn(): Promise<void> {
  const rows = good.value
  if (!(await take())) return
  undo.say(`${counted(rows, 'row')} taken in.`)
  file.value = null
  void buildings.load()
}
watch([siteId, own], look)
</script>

<template>
  <div class="page">
    <header>
      <h1>COBie</h1>
      <RouterLink to="/registers/places">Registers</RouterLink>
    </header>
    <main>
      <section aria-label="Take in a workbook">
        <h2>In</h2>
        <p class="soft">
          A COBie workbook (2.4, XLSX) of one building: its floors, spaces, types, components and what is said of them, jobs that come round, and documents when
          their files come along, as a ZIP of workbook and files. Nothing is changed until you say so; an empty cell leaves what is there, and nothing is ever
          removed.
        </p>
        <div class="choices">
          <ListEntry v-if="(words.lists?.sites.length ?? 0) > 1" id="cobie-site" v-model="siteId" label="Site" :options="rowsNamed(words.lists?.sites)" />
          <FileEntry
            id="cobie-file"
            label="Workbook"
            :press="file ? file.name : 'Choose a workbook'"
            accept=".xlsx,.zip"
            :disabled="busy || siteId === null"
            @choose="choose"
          />
        </div>
        <p v-if="busy" class="soft" role="status">Reading the workbook …</p>
        <p v-if="wrong" class="problem" role="alert">{{ wrong }}</p>
        <template v-if="report">
          <table>
            <caption class="hidden">
              What the workbook would do
            </caption>
            <thead>
              <tr>
                <th scope="col">Sheet</th>
                <th v-for="standing in COBIE_STANDINGS" :key="standing" scope="col" class="right">{{ NAMES[standing] }}</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="sheet in sheets" :key="sheet">
                <th scope="row">{{ sheet }}</th>
                <td v-for="standing in COBIE_STANDINGS" :key="standing" class="right mono" :class="{ nought: !report.counts[sheet][standing] }">
                  {{ report.counts[sheet][standing] || '–' }}
                </td>
              </tr>
            </tbody>
          </table>
          <div v-if="report.unknown.length && !report.taken" class="unknown">
            <p>
              No field here:
              <span v-for="(one, index) in report.unknown" :key="one.on + one.label"
                >{{ index ? ', ' : '' }}<strong>{{ one.label }}</strong> ({{ counted(one.rows, 'row') }} of {{ one.on }})</span
              >.
            </p>
            <NCheckbox v-if="mayOwn" v-model:checked="own" :disabled="busy">Keep them as own fields</NCheckbox>
            <p v-else class="soft">An administrator can keep them as own fields.</p>
          </div>
          <div v-if="!report.taken" class="acts">
            <NButton type="primary" :disabled="!good || busy" @click="takeIn">{{
              good ? `Take in ${good}${sum('bad') ? `, leave the ${sum('bad')} that cannot be` : ''}` : 'Nothing to take in'
            }}</NButton>
          </div>
          <p v-else role="status"><strong>It is taken in.</strong> What was left out stands below.</p>
          <ul v-if="report.rows.length" class="rows" aria-label="Rows">
            <li v-for="row in report.rows" :key="row.sheet + row.line + row.name">
              <span class="mono">{{ row.sheet }} {{ row.line }}</span>
              <span>{{ row.name }}</span>
              <span :class="{ problem: row.standing === 'bad' }"
                ><strong>{{ NAMES[row.standing] }}</strong> {{ row.sentences.join(' ') }}</span
              >
            </li>
          </ul>
        </template>
      </section>
      <section aria-label="Give out a building">
        <h2>Out</h2>
        <p class="soft">What comes out can be taken in again as it is.</p>
        <LoadedPart :part="buildings">
          <ul class="buildings">
            <li v-for="row in buildings.value.value!.rows" :key="row.id">
              <a :href="address(giveCobie, { id: row.id })" download
                ><span class="mono">{{ row.code }}</span> {{ row.name }}</a
              >
              <span class="soft">{{ counted(row.spaces, 'space') }}, {{ counted(row.assets, 'asset') }}</span>
            </li>
          </ul>
        </LoadedPart>
      </section>
    </main>
  </div>
</template>

<style scoped>
.page {
  min-height: 100%;
  background: var(--sheet);
}
header {
  display: flex;
  gap: 16px;
  align-items: center;
  padding: 10px 16px;
  border-bottom: 1px solid var(--line);
}
main {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 320px;
  gap: 32px;
  padding: 16px;
}
h2 {
  font-size: 16px;
  margin-bottom: 4px;
}
.choices {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  margin: 10px 0;
}
table {
  border-collapse: collapse;
  margin: 8px 0 12px;
}
th,
td {
  padding: 3px 14px 3px 0;
  border-bottom: 1px solid var(--line);
  font-weight: 400;
  text-align: left;
}
thead th {
  font-size: 12px;
  color: var(--ink-soft);
}
.right {
  text-align: right;
}
.nought {
  color: var(--ink-soft);
}
.unknown {
  display: grid;
  gap: 6px;
  padding: 8px 0 8px 10px;
  border-left: 3px solid var(--sand);
}
.acts {
  margin: 12px 0;
}
.rows,
.buildings {
  list-style: none;
  margin: 8px 0;
  padding: 0;
}
.rows li {
  display: grid;
  grid-template-columns: 120px 180px minmax(0, 1fr);
  gap: 10px;
  padding: 3px 0;
  border-top: 1px solid var(--line);
}
.buildings li {
  display: flex;
  justify-content: space-between;
  gap: 10px;
  padding: 4px 0;
  border-bottom: 1px solid var(--line);
}
@media (max-width: 900px) {
  main {
    grid-template-columns: 1fr;
  }
  .rows li {
    grid-template-columns: 1fr;
    gap: 0;
  }
}
</style>
