<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { ref } from 'vue'
import { RouterLink } from 'vue-router'
import { addDocumentVersion, editDocument, readDocumentFile } from '#contract/documents'
import type { DocumentFile, DocumentRow } from '#contract/documents'
import { AUDIENCE_NAMES, DOCUMENT_KIND_NAMES, DOCUMENT_STANDING_NAMES } from '#core/documents'
import { address, call, CallProblem, dayOf, FileEntry, RecordLink, RowButton, useUndo, writtenDay } from '#web/kit'
import DocumentForm from './DocumentForm.vue'
import DocumentPreview from './DocumentPreview.vue'
import { sizeSays } from './shown'
import type { ShownFile } from './shown'

/** Documents, each with what it is, until when it holds and who may see it; looked at, renewed and put away where they stand. */
defineProps<{ rows: DocumentRow[]; ofMany?: boolean }>()
const emit = defineEmits<{ changed: [] }>()
const undo = useUndo()
const shown = ref<ShownFile | null>(null)
const editing = ref<DocumentRow | null>(null)
const unfolded = ref<number[]>([])
const problem = ref<{ id: number; sentence: string } | null>(null)

function look(row: DocumentRow, file: DocumentFile): void {
  shown.value = { title: row.title, name: file.name, shows: file.shows, url: address(readDocumentFile, { fileId: file.id }) }
}
async function act(row: DocumentRow, send: () => Promise<unknown>, sentence: string, back?: () => Promise<unknown>): Promise<void> {
  problem.value = null
  try {
    await send()
    undo.say(sentence, back && (async () => (await back(), emit('changed'))))
    emit('changed')
  } catch (error) {
    if (!(error instanceof CallProblem)) throw error
    problem.value = { id: row.id, sentence: error.reasons[0]?.sentence ?? error.message }
  }
}
function putAway(row: DocumentRow): void {
  const turn = (version: number, retired: boolean) => call(editDocument, { id: row.id, version, retired })
  void act(
    row,
    () => turn(row.version, !row.retired),
    row.retired ? `${row.title} is in use again.` : `${row.title} was put away.`,
    () => turn(row.version + 1, row.retired),
  )
}
const renew = (row: DocumentRow, [file]: File[]) =>
  file && void act(row, () => call(addDocumentVersion, { id: row.id, version: row.version, name: file.name }, { file }), `${row.title} has a newer version.`)
const validSays = ({ validFrom, validUntil }: DocumentRow) =>
  [validFrom && `from ${writtenDay(validFrom)}`, validUntil && `until ${writtenDay(validUntil)}`].filter(Boolean).join(' ')
const fold = (id: number) => (unfolded.value = unfolded.value.includes(id) ? unfolded.value.filter((one) => one !== id) : [...unfolded.value, id])
const leads = (row: DocumentRow) => (row.on === 'orders' ? `/desk/planning/order/${row.recordId}` : `/desk/triage/request/${row.recordId}`)
</script>

<template>
  <ul class="documents" aria-label="Documents">
    <li v-for="row in rows" :key="row.id" :class="{ away: row.retired }">
      <div class="what">
        <RowButton class="title" :aria-label="`Look at ${row.title}`" @click="look(row, row.files[0]!)"
          ><span>{{ row.title }}</span></RowButton
        >
        <span class="soft">{{ DOCUMENT_KIND_NAMES[row.kind] }}</span>
        <span v-if="row.validFrom || row.validUntil" class="valid">{{ validSays(row) }}</span>
        <strong v-if="row.standing !== 'valid'" :class="row.standing">{{ DOCUMENT_STANDING_NAMES[row.standing] }}</strong>
        <strong v-if="row.retired">Put away</strong>
      </div>
      <p class="more soft">
        <template v-if="ofMany">
          <RouterLink v-if="row.on === 'orders' || row.on === 'requests'" :to="leads(row)">{{ row.called }}</RouterLink>
          <RecordLink v-else :record="{ register: row.on, id: row.recordId }">{{ row.called }}</RecordLink>
          ·
        </template>
        {{ row.files[0]!.name }}, {{ sizeSays(row.files[0]!.bytes) }}, {{ dayOf(row.files[0]!.at) }} by {{ row.files[0]!.by
        }}<template v-if="row.audience.length"> · seen by {{ row.audience.map((one) => AUDIENCE_NAMES[one].toLowerCase()).join(', ') }}</template>
      </p>
      <div class="acts">
        <template v-if="row.mayEdit">
          <NButton size="tiny" @click="editing = row">Change</NButton>
          <FileEntry
            v-if="!row.retired"
            :id="`version-of-${row.id}`"
            label-hidden
            tiny
            :label="`New version of ${row.title}`"
            press="New version"
            @choose="renew(row, $event)"
          />
          <NButton size="tiny" @click="putAway(row)">{{ row.retired ? 'Take it out again' : 'Put away' }}</NButton>
        </template>
        <NButton v-if="row.files.length > 1" size="tiny" :aria-expanded="unfolded.includes(row.id)" @click="fold(row.id)"
          >{{ row.files.length }} versions</NButton
        >
      </div>
      <p v-if="problem?.id === row.id" class="problem" role="alert">{{ problem.sentence }}</p>
      <ol v-if="unfolded.includes(row.id)" class="versions" :aria-label="`Versions of ${row.title}`">
        <li v-for="file in row.files" :key="file.id">
          <RowButton class="title" @click="look(row, file)"
            ><span>Version {{ file.number }}</span></RowButton
          >
          <span class="soft">{{ file.name }}, {{ sizeSays(file.bytes) }}, {{ dayOf(file.at) }} by {{ file.by }}</span>
        </li>
      </ol>
    </li>
  </ul>
  <DocumentPreview v-if="shown" :file="shown" @close="shown = null" />
  <DocumentForm
    v-if="editing"
    :on="editing.on"
    :record-id="editing.recordId"
    :document="editing"
    @close="editing = null"
    @kept="((editing = null), emit('changed'))"
  />
</template>

<style scoped>
.documents,
.versions {
  list-style: none;
  margin: 0;
  padding: 0;
}
.documents > li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 0 12px;
  align-items: center;
  padding: 6px 0;
  border-bottom: 1px solid var(--line);
}
.what {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 12px;
  align-items: baseline;
}
.more {
  grid-column: 1;
  grid-row: 2;
  font-size: 12px;
}
.acts {
  grid-column: 2;
  grid-row: 1 / 3;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px;
}
.acts :deep(.n-form-item-blank) {
  min-height: 0;
}
.title {
  font-weight: 600;
  text-decoration: underline;
  text-decoration-color: var(--line-strong);
  text-underline-offset: 2px;
}
.away .title {
  font-weight: 400;
  color: var(--ink-soft);
}
.ended,
.ending {
  padding: 0 6px;
  border: 1px solid currentcolor;
  border-radius: 3px;
  font-size: 12px;
}
.ended {
  color: var(--buoy);
}
.ending {
  color: var(--sand-text);
}
.problem,
.versions {
  grid-column: 1 / -1;
}
.versions li {
  display: flex;
  gap: 10px;
  padding: 2px 0 2px 12px;
}
@media (max-width: 600px) {
  .documents > li {
    grid-template-columns: 1fr;
  }
  .acts {
    grid-column: 1;
    grid-row: auto;
  }
}
</style>
