<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { NCheckbox, NCheckboxGroup } from 'naive-ui/es/checkbox'
import { computed, reactive, ref } from 'vue'
import { addDocument, editDocument } from '#contract/documents'
import type { DocumentRow } from '#contract/documents'
import { AUDIENCE_NAMES, AUDIENCES, DOCUMENT_KIND_NAMES, DOCUMENT_KINDS, MOST_REMIND_DAYS, USUAL_REMIND_DAYS } from '#core/documents'
import type { Audience, DocumentKind } from '#core/documents'
import type { ListKind } from '#core/lists'
import { call, CallProblem, DialogBox, FileEntry, ListEntry, MomentEntry, named, NumberEntry, TextEntry, useUndo } from '#web/kit'

/** A document that is added, or one of which something else is to be said. */
const props = defineProps<{ on: ListKind; recordId: number; document?: DocumentRow | null }>()
const emit = defineEmits<{ close: []; kept: [] }>()
const undo = useUndo()
const before = props.document
const form = reactive({
  kind: (before?.kind ?? null) as DocumentKind | null,
  title: before?.title ?? '',
  validFrom: before?.validFrom ?? '',
  validUntil: before?.validUntil ?? '',
  remindDays: before ? before.remindDays : null,
  audience: [...(before?.audience ?? [])] as Audience[],
})
const file = ref<File | null>(null)
const problem = ref<CallProblem | null>(null)
const missing = ref('')
const busy = ref(false)
const at = (field: string) => problem.value?.at(field)
const whole = computed(() => problem.value && !problem.value.reasons.some((reason) => reason.field) && problem.value.message)

/** What is chosen says what it most likely is; an end that is given is one to be reminded of. */
function choose([chosen]: File[]): void {
  file.value = chosen ?? null
  missing.value = ''
  if (!chosen) return
  if (!form.title) form.title = chosen.name.replace(/\.[^.]+$/, '').slice(0, 140)
  if (!form.kind && chosen.type.startsWith('image/')) form.kind = 'photo'
}
function until(day: string | null): void {
  form.validUntil = day ?? ''
  if (day && form.remindDays === null) form.remindDays = USUAL_REMIND_DAYS
  if (!day) form.remindDays = null
}

async function keep(): Promise<void> {
  if (!before && !file.value) return void (missing.value = 'Choose a file.')
  if (!form.kind) return void (missing.value = 'Say what kind it is.')
  busy.value = true
  problem.value = null
  missing.value = ''
  const said = { kind: form.kind, title: form.title, validFrom: form.validFrom || null, validUntil: form.validUntil || null, remindDays: form.remindDays }
  try {
    if (before) await call(editDocument, { id: before.id, version: before.version, ...said, audience: form.audience })
    else {
      const asked = { on: props.on, id: props.recordId, ...said, name: file.value!.name, audience: form.audience.join(',') }
      await call(addDocument, asked, { file: file.value! })
    }
    undo.say(`${form.title} is ${before ? 'kept' : 'added'}.`)
    emit('kept')
  } catch (error) {
    if (!(error instanceof CallProblem)) throw error
    problem.value = error
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <DialogBox :title="before ? 'What is said of it' : 'Add a document'" @close="emit('close')">
    <form class="form" @submit.prevent="keep" @keydown.ctrl.enter.prevent="keep">
      <h1>{{ before ? before.title : 'Add a document' }}</h1>
      <FileEntry v-if="!before" id="document-file" label="File, up to 15 MB" :press="file ? file.name : 'Choose a file'" @choose="choose" />
      <p v-if="at('file')" class="problem" role="alert">{{ at('file') }}</p>
      <ListEntry id="document-kind" v-model="form.kind" label="Kind" :options="named(DOCUMENT_KINDS, DOCUMENT_KIND_NAMES)" :problem="at('kind')" />
      <TextEntry id="document-title" v-model="form.title" class="full" label="Title" :max="140" :problem="at('title')" />
      <MomentEntry id="document-from" v-model="form.validFrom" day label="Valid from" :problem="at('validFrom')" />
      <MomentEntry id="document-until" day label="Valid until" :model-value="form.validUntil" :problem="at('validUntil')" @update:model-value="until" />
      <NumberEntry
        v-if="form.validUntil || at('remindDays')"
        id="document-remind"
        v-model="form.remindDays"
        label="Remind before its end (empty: never)"
        unit="days"
        :least="0"
        :most="MOST_REMIND_DAYS"
        :problem="at('remindDays')"
      />
      <div class="full" role="group" aria-labelledby="document-audience">
        <p id="document-audience" class="label">Who may see it besides the desk</p>
        <NCheckboxGroup v-model:value="form.audience">
          <NCheckbox v-for="one in AUDIENCES" :key="one" class="who" :value="one" :label="AUDIENCE_NAMES[one]" />
        </NCheckboxGroup>
      </div>
      <p v-if="missing || whole" class="problem full" role="alert">{{ missing || whole }}</p>
      <div class="acts full">
        <NButton type="primary" attr-type="submit" :disabled="busy">{{ before ? 'Keep' : 'Add it' }}</NButton>
        <NButton @click="emit('close')">Leave it</NButton>
      </div>
    </form>
  </DialogBox>
</template>

<style scoped>
.form {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px 12px;
}
h1,
.full {
  grid-column: 1 / -1;
}
.label {
  font-size: 12px;
  color: var(--ink-soft);
}
.who {
  margin-right: 16px;
}
.acts {
  display: flex;
  gap: 8px;
}
@media (max-width: 600px) {
  .form {
    grid-template-columns: 1fr;
  }
}
</style>
