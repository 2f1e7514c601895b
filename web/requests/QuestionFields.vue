<script setup lang="ts">
import { computed } from 'vue'
import { askedQuestions } from '#core/requests'
import type { Answer, Answers, Question } from '#core/requests'

/** The questions of a category, each shown once an earlier answer makes it relevant. */
const props = defineProps<{ questions: Question[]; wrong: Record<string, string> }>()
const answers = defineModel<Answers>({ required: true })
const asked = computed(() => askedQuestions(props.questions, answers.value))
const answer = (code: string, value: Answer) => (answers.value = { ...answers.value, [code]: value })
const listed = (code: string) => [answers.value[code] ?? []].flat().map(String)
const tick = (code: string, option: string, on: boolean) => answer(code, on ? [...listed(code), option] : listed(code).filter((one) => one !== option))
const valueOf = (event: Event) => (event.target as HTMLInputElement).value
const limits = (one: Question) =>
  typeof one.least === 'number' && typeof one.most === 'number'
    ? `, ${one.least} to ${one.most}`
    : typeof one.least === 'number'
      ? `, at least ${one.least}`
      : typeof one.most === 'number'
        ? `, at most ${one.most}`
        : ''
</script>

<template>
  <div v-for="one in asked" :key="one.code" class="field">
    <fieldset v-if="one.kind === 'yes_no' || one.kind === 'choice'" :aria-invalid="!!wrong[`answers.${one.code}`]">
      <legend>{{ one.label }}{{ one.required ? ' (needed)' : '' }}</legend>
      <label v-for="option in one.kind === 'yes_no' ? ['yes', 'no'] : one.options" :key="option" class="option"
        ><input type="radio" :name="`q-${one.code}`" :value="option" :checked="answers[one.code] === option" @change="answer(one.code, option)" />
        {{ one.kind === 'yes_no' ? (option === 'yes' ? 'Yes' : 'No') : option }}</label
      >
    </fieldset>
    <fieldset v-else-if="one.kind === 'several'" :aria-invalid="!!wrong[`answers.${one.code}`]">
      <legend>{{ one.label }}{{ one.required ? ' (needed)' : '' }}</legend>
      <label v-for="option in one.options" :key="option" class="option"
        ><input type="checkbox" :checked="listed(one.code).includes(option)" @change="tick(one.code, option, ($event.target as HTMLInputElement).checked)" />
        {{ option }}</label
      >
    </fieldset>
    <template v-else>
      <label :for="`q-${one.code}`">{{ one.label }}{{ one.unit ? ` (${one.unit}${limits(one)})` : '' }}{{ one.required ? ' (needed)' : '' }}</label>
      <input
        :id="`q-${one.code}`"
        class="entry"
        :class="{ mono: one.kind !== 'text' }"
        :type="one.kind === 'date' ? 'date' : 'text'"
        :inputmode="one.kind === 'number' || one.kind === 'meter' ? 'decimal' : undefined"
        maxlength="500"
        :value="answers[one.code] ?? ''"
        :aria-invalid="!!wrong[`answers.${one.code}`]"
        @input="answer(one.code, valueOf($event))"
      />
    </template>
    <p v-if="wrong[`answers.${one.code}`]" class="problem" role="alert">{{ wrong[`answers.${one.code}`] }}</p>
  </div>
</template>

<style scoped>
fieldset {
  border: 0;
  margin: 0;
  padding: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
}
legend {
  padding: 0;
  margin-bottom: 4px;
}
.option {
  display: inline-flex;
  align-items: center;
  gap: 8px;
  min-height: 48px;
}
.option input {
  width: 20px;
  height: 20px;
}
</style>
