<script setup lang="ts">
import { computed, ref } from 'vue'
import { ONE_OF, REGISTER_NAMES } from '#core/registers'
import type { RegisterName } from '#core/registers'
import { CallProblem, call, ProblemNote, useUndo } from '#web/kit'
import { NButton } from 'naive-ui/es/button'
import { ConflictBox, provideSheet, SectionList, useSheet } from '#web/sheets'
import { KINDS } from '#contract/portraits'
import type { AnyEdit, AnyRecord } from '#contract/portraits'
import RetireForm from './RetireForm.vue'
import { PORTRAIT_SECTIONS } from './sections'
import { workSays } from './workSays'

/** Everything about one record: what it is, the work on it, what is above and below, what it cost, and what became of it. Read first, changed in place. */
const props = defineProps<{ register: RegisterName; id: number }>()
const kind = KINDS[props.register]
const undo = useUndo()
const { sheet, save, saveFrom, sentenceAt, conflict, settle, follow } = useSheet<AnyRecord, AnyEdit>(props.id, kind.read, kind.edit)
follow((change) => (change.register === props.register && change.recordId === props.id) || change.orderId !== null || change.requestId !== null)
const it = computed(() => sheet.value.value!)
const retiring = ref(false)
const begun = ref<string | null>(null)

function whyNot(name: string): string | undefined {
  if (!it.value.mayEdit) return `Your role reads ${REGISTER_NAMES[props.register].toLowerCase()} and does not change them.`
  if (it.value.state === 'retired') return 'It is retired. Take it into use again to change it.'
  return kind.fields[name]?.fixed
}
provideSheet<AnyRecord, Record<string, unknown>>({
  sheet: it,
  whyNot,
  save: (fields) => save(fields as never),
  saveFrom,
  sentenceAt,
  reload: sheet.load,
  begun,
})

const names = computed(() => Object.fromEntries(Object.entries(kind.fields).map(([name, field]) => [name, field.label])))
function showValue(field: string, value: unknown): string {
  if (value === null) return 'nothing'
  const one = kind.fields[field]
  if (one?.kind === 'choice') return one.choices[String(value)] ?? String(value)
  return one?.kind === 'named' ? (value === it.value[field] ? (it.value.names[field] ?? '') : 'what you chose') : String(value)
}

/** Where something about it is reported, filled in: what its label opens for strangers. */
const counter = computed(() => {
  const named = ({ places: 'place', assets: 'asset' } as Partial<Record<RegisterName, string>>)[props.register]
  if (!named || !it.value.site || !it.value.code || it.value.state === 'retired') return null
  return `/c/${it.value.site.code}?${new URLSearchParams({ [named]: it.value.code, report: 'yes' }).toString()}`
})

async function restore(): Promise<void> {
  try {
    sheet.value.value = await call(kind.restore, { id: props.id, version: it.value.version })
    undo.say('It is in use again.')
  } catch (error) {
    if (!(error instanceof CallProblem)) throw error
    undo.say(error.reasons[0]?.sentence ?? error.message, undefined, true)
  }
}
function retired(now: AnyRecord): void {
  retiring.value = false
  sheet.value.value = now
  undo.say('It is retired. Its history stays.', async () => {
    sheet.value.value = await call(kind.restore, { id: now.id, version: now.version })
  })
}
</script>

<template>
  <ProblemNote v-if="sheet.problem.value && !sheet.value.value" :problem="sheet.problem.value" @retry="sheet.load" />
  <div v-else-if="!sheet.value.value" class="loading" role="status" aria-label="Loading">
    <span class="bones" /><span class="bones" /><span class="bones tall" />
  </div>
  <article v-else class="portrait">
    <header class="head">
      <p class="line">
        <span class="kind">{{ ONE_OF[register].name }}</span>
        <span v-if="it.code" class="mono">{{ it.code }}</span>
        <span v-if="it.site" class="soft">{{ it.site.name }}</span>
        <span v-if="it.state === 'retired'" class="retired">Retired</span>
      </p>
      <h1 :title="it.heading">{{ it.heading }}</h1>
      <p class="work">{{ workSays(it.work) }}</p>
      <div v-if="it.mayEdit || counter" class="moves">
        <template v-if="it.mayEdit">
          <NButton v-if="it.state === 'in_use'" size="small" @click="retiring = !retiring">Retire</NButton>
          <NButton v-else size="small" type="primary" @click="restore">Take into use again</NButton>
        </template>
        <NButton v-if="counter" tag="a" size="small" :href="counter">Report something here</NButton>
      </div>
      <RetireForm v-if="retiring" :record="it" :kind="kind" @retired="retired" @close="retiring = false" />
      <SectionList index :sheet="it" :sections="PORTRAIT_SECTIONS" />
    </header>
    <SectionList :sheet="it" :sections="PORTRAIT_SECTIONS" />
    <ConflictBox v-if="conflict" :conflict="conflict" :names="names" :show="showValue" @settle="settle" />
  </article>
</template>

<style scoped src="../sheets/sheet.css"></style>
<style scoped>
.kind {
  color: var(--ink-soft);
  font-size: 13px;
}
.kind::first-letter {
  text-transform: uppercase;
}
.retired {
  border: 1px solid var(--line-strong);
  border-radius: 3px;
  padding: 0 6px;
  font-size: 12px;
}
.work {
  font-size: 13px;
}
.moves {
  display: flex;
  gap: 8px;
}
</style>
