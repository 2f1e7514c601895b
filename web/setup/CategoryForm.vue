<script setup lang="ts">
import { NCheckbox } from 'naive-ui/es/checkbox'
import { NButton } from 'naive-ui/es/button'
import { computed, ref } from 'vue'
import { saveCategory } from '#contract/setup'
import type { CategoryRow, IntakeSetup } from '#contract/setup'
import { QUESTION_KIND_NAMES, QUESTION_KINDS } from '#core/requests'
import type { Answers, Question } from '#core/requests'
import { texts, rowsNamed, named, DecimalField, NumberEntry, ListEntry, TextEntry, call, DraftNote, useFormDraft, PickField, useVocabulary } from '#web/kit'
import type { CallProblem } from '#web/kit'
import { QuestionFields } from '#web/requests'

/** One category with its questions, and the form as a reporter would see it. */
const props = defineProps<{
  category: CategoryRow
  categories: CategoryRow[]
  problem: CallProblem | null
  keep: (change: () => Promise<IntakeSetup>, done: string) => Promise<boolean>
}>()
const emit = defineEmits<{ leave: [] }>()
const words = useVocabulary()
void words.ensure()
const { form, kept, drop } = useFormDraft<CategoryRow>(`category-${props.category.id}`, props.category)
const tried = ref<Answers>({})
const mine = ref(false)
const at = (field: string) => (mine.value ? props.problem?.at(field) : undefined)
const parents = computed(() => props.categories.filter((one) => !one.parentId && one.id !== props.category.id))
const before = (index: number) => form.questions.slice(0, index).filter((one) => one.kind === 'yes_no' || one.kind === 'choice')
const answersOf = (code: string | undefined) => {
  const on = form.questions.find((one) => one.code === code)
  return on?.kind === 'yes_no' ? ['yes', 'no'] : (on?.options ?? [])
}
const numeric = (one: Question) => one.kind === 'number' || one.kind === 'meter'

function add(): void {
  const taken = new Set(form.questions.map((one) => one.code))
  let n = form.questions.length + 1
  while (taken.has(`q${n}`)) n++
  form.questions.push({ code: `q${n}`, label: '', kind: 'text', required: false })
}
function move(index: number, by: -1 | 1): void {
  const [one] = form.questions.splice(index, 1)
  form.questions.splice(index + by, 0, one!)
}
function hangOn(one: Question, code: string): void {
  one.when = code ? { code, is: answersOf(code)[0] ?? '' } : null
}
/** Only what belongs to the kind of question is sent. */
const plain = (one: Question): Question => ({
  code: one.code,
  label: one.label,
  kind: one.kind,
  required: one.required,
  ...(numeric(one) ? { unit: one.unit ?? '', least: one.least ?? null, most: one.most ?? null } : {}),
  ...(one.kind === 'choice' || one.kind === 'several' ? { options: (one.options ?? []).map((option) => option.trim()).filter(Boolean) } : {}),
  ...(one.when ? { when: one.when } : {}),
})
async function save(): Promise<void> {
  mine.value = true
  const { id, parentId, code, name, tradeId, position, retired } = form
  const entry = { id: id || null, parentId, code, name, hint: form.hint ?? '', tradeId, position, retired, questions: form.questions.map(plain) }
  if (await props.keep(() => call(saveCategory, entry), `${name} is saved.`)) leave()
}
function leave(): void {
  drop()
  emit('leave')
}
</script>

<template>
  <form class="category" @submit.prevent="save">
    <DraftNote :kept="kept" @drop="drop" />
    <div class="grid">
      <TextEntry id="cat-name" v-model="form.name" label="Name" :max="80" :problem="at('name')" />
      <TextEntry id="cat-code" v-model="form.code" label="Short name" mono :max="32" :problem="at('code')" />
      <TextEntry
        id="cat-hint"
        :model-value="form.hint ?? ''"
        label="A few words for reporters"
        :max="160"
        class="wide"
        @update:model-value="form.hint = $event"
      />
      <ListEntry
        id="cat-parent"
        v-model="form.parentId"
        label="Under"
        clearable
        placeholder="nothing, it stands at the top"
        :options="rowsNamed(parents)"
        :problem="at('parentId')"
      />
      <PickField
        id="cat-trade"
        label="Trade"
        :value="form.tradeId"
        :choices="words.choices((all) => all.trades)"
        clearable
        @pick="form.tradeId = $event as number | null"
      />
      <NumberEntry
        id="cat-position"
        :model-value="form.position"
        label="Place in the list"
        :least="0"
        :most="10_000"
        @update:model-value="form.position = $event ?? 0"
      />
      <NCheckbox v-model:checked="form.retired" class="check">No longer offered</NCheckbox>
    </div>
    <h3>Questions</h3>
    <fieldset v-for="(one, index) in form.questions" :key="index" class="question">
      <legend>Question {{ index + 1 }}</legend>
      <div class="grid">
        <TextEntry :id="`q-label-${index}`" v-model="one.label" label="Question" :max="160" class="wide" />
        <ListEntry
          :id="`q-kind-${index}`"
          :model-value="one.kind"
          label="Answered by"
          :options="named(QUESTION_KINDS, QUESTION_KIND_NAMES)"
          @update:model-value="one.kind = $event ?? one.kind"
        />
        <TextEntry :id="`q-code-${index}`" v-model="one.code" label="Short name" mono :max="32" />
        <template v-if="numeric(one)">
          <TextEntry :id="`q-unit-${index}`" :model-value="one.unit ?? ''" label="Unit" :max="16" @update:model-value="one.unit = $event" />
          <DecimalField
            v-for="[bound, name] in [['least', 'At least'] as const, ['most', 'At most'] as const]"
            :id="`q-${bound}-${index}`"
            :key="bound"
            kind="quantity"
            signed
            :label="name"
            :value="one[bound] ?? null"
            @save="one[bound] = $event === null ? null : Number($event)"
          />
        </template>
        <TextEntry
          v-if="one.kind === 'choice' || one.kind === 'several'"
          :id="`q-options-${index}`"
          class="wide"
          long
          label="The list, one a line"
          :model-value="(one.options ?? []).join('\n')"
          @update:model-value="one.options = $event.split('\n')"
        />
        <ListEntry
          v-if="before(index).length"
          :id="`q-when-${index}`"
          label="Asked"
          clearable
          placeholder="always"
          :model-value="one.when?.code ?? null"
          :options="before(index).map((other) => ({ value: other.code, label: `when “${other.label}”` }))"
          @update:model-value="hangOn(one, $event ?? '')"
        />
        <ListEntry
          v-if="one.when"
          :id="`q-is-${index}`"
          label="is answered"
          :model-value="one.when.is"
          :options="texts(answersOf(one.when.code))"
          @update:model-value="one.when!.is = $event ?? ''"
        />
        <NCheckbox v-model:checked="one.required" class="check">Needed</NCheckbox>
      </div>
      <p v-if="at(`questions.${index}`)" class="problem" role="alert">{{ at(`questions.${index}`) }}</p>
      <p class="acts">
        <NButton :disabled="index === 0" @click="move(index, -1)">Earlier</NButton>
        <NButton :disabled="index === form.questions.length - 1" @click="move(index, 1)">Later</NButton>
        <NButton @click="form.questions.splice(index, 1)">Remove</NButton>
      </p>
    </fieldset>
    <p class="acts"><NButton @click="add">Add a question</NButton></p>
    <section v-if="form.questions.length" class="seen" aria-label="As a reporter sees it">
      <h3>As a reporter sees it</h3>
      <QuestionFields v-model="tried" :questions="form.questions" :wrong="{}" />
    </section>
    <p class="acts"><NButton type="primary" attr-type="submit">Save</NButton> <NButton @click="leave">Leave it as it was</NButton></p>
  </form>
</template>

<style scoped>
.category {
  display: grid;
  gap: 12px;
}
.grid {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(190px, 1fr));
  gap: 8px 12px;
  align-items: end;
}
.wide {
  grid-column: 1 / -1;
}
.question {
  border: 1px solid var(--line);
  border-radius: 6px;
  padding: 8px 12px;
  display: grid;
  gap: 8px;
}
.check {
  display: inline-flex;
  align-items: center;
  gap: 6px;
  min-height: 34px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.seen {
  padding: 12px 16px;
  background: var(--paper);
  border: 1px solid var(--line);
  border-radius: 6px;
  max-width: 420px;
  display: grid;
  gap: 8px;
}
</style>
