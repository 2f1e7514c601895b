<script setup lang="ts">
import { reactive } from 'vue'
import { dropPromiseException, savePromiseException } from '#contract/setup'
import type { RuleBookSheet } from '#contract/setup'
import { PRIORITIES, PRIORITY_NAMES } from '#core/requests'
import type { Priority } from '#core/requests'
import { call, CallProblem, spell, PickField, useVocabulary } from '#web/kit'

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
  responseMinutes: 60,
  completionMinutes: 480,
})
async function save(): Promise<void> {
  const { categoryId, ...rest } = form
  if (
    await props.keep(
      () => call(savePromiseException, { siteId: props.sheet.siteId, categoryId: categoryId ?? 0, ...rest }),
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
          <button class="push" type="button" :aria-label="`Remove the promise for ${one.categoryName}, ${PRIORITY_NAMES[one.priority]}`" @click="drop(one.id)">
            Remove
          </button>
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
    <div class="field">
      <label for="exception-priority">Priority</label>
      <select id="exception-priority" v-model="form.priority" class="entry">
        <option v-for="one in PRIORITIES" :key="one" :value="one">{{ PRIORITY_NAMES[one] }}</option>
      </select>
    </div>
    <div class="field">
      <label for="exception-response">Respond within, minutes</label>
      <input id="exception-response" v-model.number="form.responseMinutes" class="entry mono" type="number" min="1" />
    </div>
    <div class="field">
      <label for="exception-completion">Finish within, minutes</label>
      <input id="exception-completion" v-model.number="form.completionMinutes" class="entry mono" type="number" min="1" />
      <p v-if="problem?.at('completionMinutes')" class="problem">{{ problem.at('completionMinutes') }}</p>
    </div>
    <div class="field">
      <label for="exception-clock">Clock</label>
      <select id="exception-clock" v-model="form.clock" class="entry">
        <option value="working">working time</option>
        <option value="continuous">day and night</option>
      </select>
    </div>
    <button class="push" type="submit">Promise this</button>
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
