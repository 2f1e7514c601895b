<script setup lang="ts">
import { FieldFrame, MomentEntryLater, TextEntry } from '#web/kit'
import { NRadio, NRadioGroup } from 'naive-ui/es/radio'
import { NCheckbox, NCheckboxGroup } from 'naive-ui/es/checkbox'
import { computed } from 'vue'
import { askedQuestions } from '#core/requests'
import type { Answer, Answers, Question } from '#core/requests'

/** The questions of a category, each shown once an earlier answer makes it relevant. */
const props = defineProps<{ questions: Question[]; wrong: Record<string, string> }>()
const answers = defineModel<Answers>({ required: true })
const asked = computed(() => askedQuestions(props.questions, answers.value))
const answer = (code: string, value: Answer) => (answers.value = { ...answers.value, [code]: value })
const listed = (code: string) => [answers.value[code] ?? []].flat().map(String)
const textOf = (code: string) => String(answers.value[code] ?? '')
const isListed = (one: Question) => one.kind === 'yes_no' || one.kind === 'choice' || one.kind === 'several'
const limits = (one: Question) =>
  typeof one.least === 'number' && typeof one.most === 'number'
    ? `, ${one.least} to ${one.most}`
    : typeof one.least === 'number'
      ? `, at least ${one.least}`
      : typeof one.most === 'number'
        ? `, at most ${one.most}`
        : ''
const titleOf = (one: Question) => `${one.label}${one.unit ? ` (${one.unit}${limits(one)})` : ''}${one.required ? ' (needed)' : ''}`
</script>

<template>
  <template v-for="one in asked" :key="one.code">
    <FieldFrame v-if="isListed(one)" :label="titleOf(one)" :problem="wrong[`answers.${one.code}`]">
      <NCheckboxGroup
        v-if="one.kind === 'several'"
        :value="listed(one.code)"
        role="group"
        :aria-label="one.label"
        @update:value="(all) => answer(one.code, all.map(String))"
      >
        <NCheckbox v-for="option in one.options" :key="option" class="option" :value="option">{{ option }}</NCheckbox>
      </NCheckboxGroup>
      <NRadioGroup
        v-else
        :value="textOf(one.code) || null"
        :name="`q-${one.code}`"
        role="radiogroup"
        :aria-label="one.label"
        @update:value="answer(one.code, $event)"
      >
        <NRadio v-for="option in one.kind === 'yes_no' ? ['yes', 'no'] : one.options" :key="option" class="option" :value="option">{{
          one.kind === 'yes_no' ? (option === 'yes' ? 'Yes' : 'No') : option
        }}</NRadio>
      </NRadioGroup>
    </FieldFrame>
    <MomentEntryLater
      v-else-if="one.kind === 'date'"
      :id="`q-${one.code}`"
      day
      :label="titleOf(one)"
      :model-value="textOf(one.code)"
      :problem="wrong[`answers.${one.code}`]"
      @update:model-value="answer(one.code, $event)"
    />
    <TextEntry
      v-else
      :id="`q-${one.code}`"
      :label="titleOf(one)"
      :mono="one.kind !== 'text'"
      :inputmode="one.kind === 'number' || one.kind === 'meter' ? 'decimal' : undefined"
      :max="500"
      :model-value="textOf(one.code)"
      :problem="wrong[`answers.${one.code}`]"
      @update:model-value="answer(one.code, $event)"
    />
  </template>
</template>

<style scoped>
.option {
  min-height: 48px;
  margin-right: 16px;
  align-items: center;
}
</style>
