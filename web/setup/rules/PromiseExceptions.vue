<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { reactive } from 'vue'
import { dropPromiseException, savePromiseException } from '#contract/setup'
import type { RuleBookSheet } from '#contract/setup'
import { PRIORITIES, PRIORITY_NAMES } from '#core/requests'
import type { Priority } from '#core/requests'
import { named, ChoiceEntry, NumberEntry, ListEntry, call, CallProblem, spell, PickField, useVocabulary } from '#web/kit'

/** What a priority promises for one category, where it differs from the site's usual promise. */
const props = defineProps<{
  sheet: RuleBookSheet
  problem: CallProblem | null
  keep: (change: () => Promise<RuleBookSheet>, done: string) => Promise<boolean>
}>()
const words = useVocabulary()
const form = reactive({
  categoryId: null as number | null,
  priority: 'urgent' as Priority,
  clock: 'working' as 'working' | 'continuous',
  responseMinutes: 60 as number | null,
  completionMinutes: 480 as number | null,
})
const CLOCKS = [
  { value: 'working', label: 'working time' },
  { value: 'continuous', label: 'day and night' },
] as const
async function save(): Promise<void> {
  const { categoryId, responseMinutes, completionMinutes, ...rest } = form
  if (
    await props.keep(
      () =>
        call(savePromiseException, {
          siteId: props.sheet.siteId,
          categoryId: categoryId ?? 0,
          responseMinutes: responseMinutes ?? 0,
          completionMinutes: completionMinutes ?? 0,
          ...rest,
        }),
      'Saved; promises already made stay.',
    )
  )
    form.categoryId = null
}
const drop = (id: number) =>
  props.keep(() => call(dropPromiseException, { siteId: props.sheet.siteId, id }), 'The usual promise counts again; promises already made stay.')
</script>

<template>
  <table v-if="sheet.exceptions.length" class="plain-table">
    <thead>
      <tr>
        <th>Category</th>
        <th>Priority</th>
        <th>Respond within</th>
        <th>Finish within</th>
        <th>Clock</th>
        <th></th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="one in sheet.exceptions" :key="one.id">
        <td>{{ one.categoryName }}</td>
        <td>{{ PRIORITY_NAMES[one.priority] }}</td>
        <td>{{ spell(one.responseMinutes) }}</td>
        <td>{{ spell(one.completionMinutes) }}</td>
        <td>{{ one.clock === 'working' ? 'working time' : 'day and night' }}</td>
        <td>
          <NButton :aria-label="`Remove the promise for ${one.categoryName}, ${PRIORITY_NAMES[one.priority]}`" @click="drop(one.id)"> Remove </NButton>
        </td>
      </tr>
    </tbody>
  </table>
  <p v-else class="soft">Every category has the site’s usual promises.</p>
  <form class="new" aria-label="Promise for a category" @submit.prevent="save">
    <PickField
      id="exception-category"
      label="Category"
      :value="form.categoryId"
      :choices="words.choices((all) => all.categories)"
      :problem="problem?.at('categoryId')"
      @pick="form.categoryId = $event as number"
    />
    <ListEntry
      id="exception-priority"
      :model-value="form.priority"
      label="Priority"
      :options="named(PRIORITIES, PRIORITY_NAMES)"
      @update:model-value="form.priority = $event ?? form.priority"
    />
    <NumberEntry id="exception-response" v-model="form.responseMinutes" label="Respond within, minutes" :least="1" />
    <NumberEntry
      id="exception-completion"
      v-model="form.completionMinutes"
      label="Finish within, minutes"
      :least="1"
      :problem="problem?.at('completionMinutes')"
    />
    <ChoiceEntry id="exception-clock" v-model="form.clock" label="Clock" :options="CLOCKS" />
    <NButton attr-type="submit">Promise this</NButton>
  </form>
</template>

<style scoped>
.new {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(160px, 1fr));
  gap: 8px 12px;
  align-items: end;
}
</style>
