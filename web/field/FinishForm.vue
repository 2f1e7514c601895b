<script setup lang="ts">
import { NRadio, NRadioGroup } from 'naive-ui/es/radio'
import { NCheckbox } from 'naive-ui/es/checkbox'
import { NButton } from 'naive-ui/es/button'
import { reactive, ref } from 'vue'
import { readOutcomeLists } from '#contract/field'
import type { CarriedPart, FinishJob, OutcomeLists } from '#contract/field'
import { VISIT_RESULT_NAMES, VISIT_RESULTS } from '#core/dispatch'
import type { VisitResult } from '#core/dispatch'
import { texts, ListEntry, FieldFrame, TextEntry, call, useDraft, useLoading } from '#web/kit'
import PartPick from './PartPick.vue'

/** Leaving a job: done with symptom, cause and fix, or why not. */
const props = defineProps<{
  outcome: { symptom: string | null; cause: string | null; fix: string | null }
  busy: boolean
  /** Orders of the group it leads that are not over. */
  openMembers?: string[]
  /** How it stands, before anybody says otherwise. */
  first?: VisitResult
  /** Where the lists come from; without it, from the server. */
  lists?: () => Promise<OutcomeLists>
  /** Whoever does it may look parts up. */
  parts?: boolean
  sentenceAt: (field: string) => string | undefined
}>()
const emit = defineEmits<{
  finish: [Omit<FinishJob, 'visitId'>]
  leave: []
}>()
const lists = useLoading(() => props.lists?.() ?? call(readOutcomeLists, {}))
void lists.load()
const result = ref<VisitResult>(props.first ?? 'done')
const said = reactive({ symptom: props.outcome.symptom ?? '', cause: props.outcome.cause ?? '', fix: props.outcome.fix ?? '' })
const OUTCOME = [
  ['symptom', 'What was wrong', 'symptoms'],
  ['cause', 'Why', 'causes'],
  ['fix', 'What was done', 'fixes'],
] as const
const note = useDraft(() => `finish-${location.pathname}`)
const released = ref(false)
const part = ref<CarriedPart | null>(null)
const quantity = ref('1')
const picked = ref<InstanceType<typeof PartPick> | null>(null)
function send(): void {
  const waits = result.value === 'part' && props.parts && part.value !== null
  if (waits && !picked.value!.leave()) return
  emit('finish', {
    result: result.value,
    ...said,
    note: note.value,
    ...(props.openMembers?.length ? { releaseMembers: released.value } : {}),
    ...(waits ? { waitsFor: { partId: part.value!.id, quantity: quantity.value } } : {}),
  })
}
</script>

<template>
  <form class="card" aria-label="Leave the job" @submit.prevent="send">
    <h2>Leave the job</h2>
    <FieldFrame label="How does it stand?">
      <NRadioGroup v-model:value="result" class="results" name="result" role="radiogroup" aria-label="How does it stand?">
        <NRadio v-for="one in VISIT_RESULTS" :key="one" :value="one">{{ VISIT_RESULT_NAMES[one] }}</NRadio>
      </NRadioGroup>
    </FieldFrame>
    <template v-if="result === 'done'">
      <ListEntry
        v-for="[name, label, list] in OUTCOME"
        :id="`out-${name}`"
        :key="name"
        v-model="said[name]"
        :label="label"
        :options="texts(lists.value.value?.[list] ?? [])"
        :problem="sentenceAt(name)"
      />
      <div v-if="openMembers?.length" class="members">
        <p>It leads {{ openMembers.join(', ') }}, not over yet.</p>
        <NCheckbox v-model:checked="released">They go on by themselves, whole</NCheckbox>
        <p v-if="sentenceAt('members')" class="problem" role="alert">{{ sentenceAt('members') }}</p>
      </div>
    </template>
    <template v-else-if="result === 'part' && parts">
      <p>Which part is missing? The job goes on by itself once it is here.</p>
      <PartPick id="missing" ref="picked" v-model="part" v-model:quantity="quantity" :problem-at="sentenceAt" />
      <p v-if="sentenceAt('waitsFor')" class="problem" role="alert">{{ sentenceAt('waitsFor') }}</p>
    </template>
    <TextEntry id="out-note" v-model="note" label="Anything to add" long :max="2000" :problem="sentenceAt('reason')" />
    <NButton type="primary" attr-type="submit" :disabled="busy">{{ result === 'done' ? 'Finish' : 'Leave' }}</NButton>
    <NButton @click="emit('leave')">Not yet</NButton>
  </form>
</template>

<style scoped>
.results {
  display: grid;
}
.results > *,
.members > .n-checkbox {
  min-height: 48px;
  align-items: center;
}
</style>
