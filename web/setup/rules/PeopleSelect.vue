<script setup lang="ts">
import { NSelect } from 'naive-ui/es/select'
import { computed } from 'vue'
import type { Vocabulary } from '#contract/people'
import { useVocabulary } from '#web/kit'

/** People by name, and those a role names, in the order they are chosen. */
const props = defineProps<{ id: string; label: string; roles: Record<string, string>; among?: (account: Vocabulary['accounts'][number]) => boolean }>()
const chosen = defineModel<(string | { accountId: number })[]>({ required: true })
const words = useVocabulary()
const options = computed(() => [
  ...Object.entries(props.roles).map(([value, label]) => ({ value, label: label[0]!.toUpperCase() + label.slice(1) })),
  ...words.choices((all) => all.accounts.filter(props.among ?? (() => true))),
])
</script>

<template>
  <div class="field">
    <label :for="id">{{ label }}</label>
    <NSelect
      multiple
      filterable
      placeholder="Type to find"
      :value="chosen.map((one) => (typeof one === 'string' ? one : one.accountId))"
      :options="options"
      :input-props="{ id, 'aria-label': label, autocomplete: 'off' }"
      @update:value="(values: (string | number)[]) => (chosen = values.map((one) => (typeof one === 'string' ? one : { accountId: one })))"
    />
  </div>
</template>
