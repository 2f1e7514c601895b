<script setup lang="ts">
import { computed, ref } from 'vue'
import { saveCategory } from '#contract/setup'
import type { CategoryRow, IntakeSetup } from '#contract/setup'
import { QUESTION_KIND_NAMES, QUESTION_KINDS } from '#core/requests'
import type { Answers, Question } from '#core/requests'
import { call, DraftNote, readTyped, useFormDraft, PickField, useVocabulary } from '#web/kit'
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
const numberOf = (event: Event) => {
  const field = event.target as HTMLInputElement
  const read = readTyped('quantity', field.value)
  const value = read.problem === undefined && read.value !== null ? Number(read.value) : null
  // Shown back as it was understood; what is no number is none.
  field.value = value === null ? '' : String(value)
  return value
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
      <div class="field">
        <label for="cat-name">Name</label><input id="cat-name" v-model="form.name" class="entry" maxlength="80" :aria-invalid="!!at('name')" />
        <p v-if="at('name')" class="problem">{{ at('name') }}</p>
      </div>
      <div class="field">
        <label for="cat-code">Short name</label><input id="cat-code" v-model="form.code" class="entry mono" maxlength="32" :aria-invalid="!!at('code')" />
        <p v-if="at('code')" class="problem">{{ at('code') }}</p>
      </div>
      <div class="field wide">
        <label for="cat-hint">A few words for reporters</label><input id="cat-hint" v-model="form.hint" class="entry" maxlength="160" />
      </div>
      <div class="field">
        <label for="cat-parent">Under</label
        ><select id="cat-parent" v-model="form.parentId" class="entry">
          <option :value="null">nothing, it stands at the top</option>
          <option v-for="one in parents" :key="one.id" :value="one.id">{{ one.name }}</option>
        </select>
        <p v-if="at('parentId')" class="problem">{{ at('parentId') }}</p>
      </div>
      <PickField
        id="cat-trade"
        label="Trade"
        :value="form.tradeId"
        :choices="words.choices((all) => all.trades)"
        clearable
        @pick="form.tradeId = $event as number | null"
      />
      <div class="field">
        <label for="cat-position">Place in the list</label
        ><input id="cat-position" v-model.number="form.position" class="entry mono" type="number" min="0" max="10000" />
      </div>
      <label class="check"><input v-model="form.retired" type="checkbox" /> No longer offered</label>
    </div>
    <h3>Questions</h3>
    <fieldset v-for="(one, index) in form.questions" :key="index" class="question">
      <legend>Question {{ index + 1 }}</legend>
      <div class="grid">
        <div class="field wide">
          <label :for="`q-label-${index}`">Question</label><input :id="`q-label-${index}`" v-model="one.label" class="entry" maxlength="160" />
        </div>
        <div class="field">
          <label :for="`q-kind-${index}`">Answered by</label
          ><select :id="`q-kind-${index}`" v-model="one.kind" class="entry">
            <option v-for="kind in QUESTION_KINDS" :key="kind" :value="kind">{{ QUESTION_KIND_NAMES[kind] }}</option>
          </select>
        </div>
        <div class="field">
          <label :for="`q-code-${index}`">Short name</label><input :id="`q-code-${index}`" v-model="one.code" class="entry mono" maxlength="32" />
        </div>
        <template v-if="numeric(one)">
          <div class="field"><label :for="`q-unit-${index}`">Unit</label><input :id="`q-unit-${index}`" v-model="one.unit" class="entry" maxlength="16" /></div>
          <div class="field">
            <label :for="`q-least-${index}`">At least</label
            ><input :id="`q-least-${index}`" class="entry mono" :value="one.least ?? ''" inputmode="decimal" @change="one.least = numberOf($event)" />
          </div>
          <div class="field">
            <label :for="`q-most-${index}`">At most</label
            ><input :id="`q-most-${index}`" class="entry mono" :value="one.most ?? ''" inputmode="decimal" @change="one.most = numberOf($event)" />
          </div>
        </template>
        <div v-if="one.kind === 'choice' || one.kind === 'several'" class="field wide">
          <label :for="`q-options-${index}`">The list, one a line</label
          ><textarea
            :id="`q-options-${index}`"
            class="entry"
            rows="3"
            :value="(one.options ?? []).join('\n')"
            @change="one.options = ($event.target as HTMLTextAreaElement).value.split('\n')"
          />
        </div>
        <div v-if="before(index).length" class="field">
          <label :for="`q-when-${index}`">Asked</label
          ><select :id="`q-when-${index}`" class="entry" :value="one.when?.code ?? ''" @change="hangOn(one, ($event.target as HTMLSelectElement).value)">
            <option value="">always</option>
            <option v-for="other in before(index)" :key="other.code" :value="other.code">when “{{ other.label }}”</option>
          </select>
        </div>
        <div v-if="one.when" class="field">
          <label :for="`q-is-${index}`">is answered</label
          ><select :id="`q-is-${index}`" v-model="one.when.is" class="entry">
            <option v-for="option in answersOf(one.when.code)" :key="option" :value="option">{{ option }}</option>
          </select>
        </div>
        <label class="check"><input v-model="one.required" type="checkbox" /> Needed</label>
      </div>
      <p v-if="at(`questions.${index}`)" class="problem" role="alert">{{ at(`questions.${index}`) }}</p>
      <p class="acts">
        <button class="push" type="button" :disabled="index === 0" @click="move(index, -1)">Earlier</button>
        <button class="push" type="button" :disabled="index === form.questions.length - 1" @click="move(index, 1)">Later</button>
        <button class="push" type="button" @click="form.questions.splice(index, 1)">Remove</button>
      </p>
    </fieldset>
    <p class="acts"><button class="push" type="button" @click="add">Add a question</button></p>
    <section v-if="form.questions.length" class="seen" aria-label="As a reporter sees it">
      <h3>As a reporter sees it</h3>
      <QuestionFields v-model="tried" :questions="form.questions" :wrong="{}" />
    </section>
    <p class="acts"><button class="push first">Save</button> <button class="push" type="button" @click="leave">Leave it as it was</button></p>
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
