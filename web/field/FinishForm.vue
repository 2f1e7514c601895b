<script setup lang="ts">
import { NRadio, NRadioGroup } from 'naive-ui/es/radio'
import { NCheckbox } from 'naive-ui/es/checkbox'
import { NButton } from 'naive-ui/es/button'
import { computed, defineAsyncComponent, reactive, ref, watch } from 'vue'
import type { FinishJob, FoundPart } from '#contract/field'
import { VISIT_RESULT_NAMES, VISIT_RESULTS } from '#core/dispatch'
import type { VisitResult } from '#core/dispatch'
import { outcomeListsFor } from '#core/field'
import { DictateButton, FieldFrame, FileEntry, fromLocalField, ListEntry, MomentEntryLater, TextEntry, texts, useDraft } from '#web/kit'
import PartPick from './PartPick.vue'

/** Leaving a job: done with symptom, cause and fix, or why not; signed by who is there, where that is wanted. */
const props = defineProps<{
  outcome: { symptom: string | null; cause: string | null; fix: string | null }
  busy: boolean
  /** Of the asset: what can be wrong with it is offered first. */
  classCode?: string | null
  /** Orders of the group it leads that are not over. */
  openMembers?: string[]
  /** How it stands, before anybody says otherwise. */
  first?: VisitResult
  /** Whoever does it may look parts up. */
  parts?: boolean
  /** To whom it can be handed over. */
  crew?: readonly { id: number; name: string }[]
  /** Meters nobody has read on this visit. */
  unread?: readonly string[]
  /** Equipment that is still with the job. */
  out?: readonly string[]
  /** Who has signed already. */
  signed?: readonly string[]
  /** Photos and signatures are taken with it. */
  onSite?: boolean
  sentenceAt: (field: string) => string | undefined
}>()
const emit = defineEmits<{
  finish: [leaving: Omit<FinishJob, 'visitId'>, signature: { name: string; picture: Blob } | null]
  photo: [files: File[]]
  leave: []
}>()
const SignaturePad = defineAsyncComponent(() => import('./SignaturePad.vue'))
const result = ref<VisitResult>(props.first ?? 'done')
const said = reactive({ symptom: props.outcome.symptom ?? '', cause: props.outcome.cause ?? '', fix: props.outcome.fix ?? '' })
const OUTCOME = [
  ['symptom', 'What was wrong', 'symptoms'],
  ['cause', 'Why', 'causes'],
  ['fix', 'What was done', 'fixes'],
] as const
/** What fits the asset, until somebody looks for more; what was said before is among it. */
const all = ref(false)
const lists = computed(() => outcomeListsFor(all.value ? null : (props.classCode ?? null)))
const choices = (name: 'symptom' | 'cause' | 'fix', list: keyof ReturnType<typeof outcomeListsFor>) => {
  const before = props.outcome[name]
  return texts(before && !lists.value[list].includes(before) ? [before, ...lists.value[list]] : lists.value[list])
}
const note = useDraft(() => `finish-${location.pathname}`)
const NOTE_LABELS: Record<VisitResult, string> = {
  done: 'Anything to add',
  return: 'What is still to do',
  part: 'Anything to add',
  handed_over: 'What they need to know',
}
const released = ref(false)
const part = ref<FoundPart | null>(null)
const quantity = ref('1')
const picked = ref<InstanceType<typeof PartPick> | null>(null)
const returnAt = ref('')
const handTo = ref<number | null>(null)
const signing = ref(false)
const signer = ref('')
const isSigned = ref(false)
// What is signed is kept, whatever becomes of the rest.
watch(
  () => props.signed?.length,
  () => {
    signing.value = isSigned.value = false
    signer.value = ''
  },
)
const signaturePad = ref<{ picture: () => Promise<Blob | null> } | null>(null)

async function send(): Promise<void> {
  const waits = result.value === 'part' && props.parts && part.value !== null
  if (waits && !picked.value!.leave()) return
  const picture = signing.value && isSigned.value ? await signaturePad.value!.picture() : null
  const leaving = {
    result: result.value,
    ...said,
    note: note.value,
    ...(props.openMembers?.length ? { releaseMembers: released.value } : {}),
    ...(waits ? { waitsFor: { partId: part.value!.id, quantity: quantity.value } } : {}),
    ...(result.value === 'return' && returnAt.value ? { returnAt: fromLocalField(returnAt.value).toISOString() } : {}),
    ...(result.value === 'handed_over' && handTo.value ? { handTo: handTo.value } : {}),
  }
  emit('finish', leaving, picture && { name: signer.value.trim(), picture })
}
/** Who signs writes their name, too: nobody reads a signature. */
const isHalfSigned = computed(() => signing.value && isSigned.value !== (signer.value.trim() !== ''))
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
        :options="choices(name, list)"
        :problem="sentenceAt(name)"
      />
      <NButton v-if="classCode && !all" text type="primary" class="more" @click="all = true">It is something else</NButton>
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
    <MomentEntryLater
      v-else-if="result === 'return' && onSite"
      id="out-return"
      v-model="returnAt"
      label="When it is best to come again"
      :problem="sentenceAt('returnAt')"
    />
    <ListEntry
      v-else-if="result === 'handed_over' && crew?.length"
      id="out-hand"
      v-model="handTo"
      label="Who takes it over"
      :options="crew.map(({ id, name }) => ({ value: id, label: name }))"
      :problem="sentenceAt('handTo')"
    />
    <TextEntry id="out-note" v-model="note" :label="NOTE_LABELS[result]" long :max="2000" :problem="sentenceAt('reason')" />
    <DictateButton v-model="note" what="it" :max="2000" />
    <template v-if="onSite">
      <p v-if="unread?.length" class="unread" role="status">Not read yet: {{ unread.join(', ') }}. Preventive work goes by it.</p>
      <p v-if="out?.length" class="unread" role="status">Still with this job: {{ out.join(', ') }}. It is charged until it is given back.</p>
      <FileEntry
        id="out-photo"
        label-hidden
        label="Photo of how it is left"
        press="Photo of how it is left"
        accept="image/*"
        :disabled="busy"
        @choose="emit('photo', $event)"
      />
      <p v-if="signed?.length" class="signed" role="status">Signed by {{ signed.join(', ') }}.</p>
      <NButton v-if="!signing" @click="signing = true">{{ signed?.length ? 'Another signature' : 'Signature of who is here' }}</NButton>
      <template v-else>
        <SignaturePad ref="signaturePad" @signed="isSigned = $event" />
        <TextEntry
          id="out-signer"
          v-model="signer"
          label="Name of who signs"
          :max="80"
          :problem="isHalfSigned && signer ? 'Sign above, too, or leave the name out.' : sentenceAt('name')"
        />
      </template>
    </template>
    <NButton type="primary" attr-type="submit" :disabled="busy || isHalfSigned">{{ result === 'done' ? 'Finish' : 'Leave' }}</NButton>
    <NButton @click="emit('leave')">Not yet</NButton>
  </form>
</template>

<style scoped>
.unread,
.signed {
  margin: 0;
}
.more {
  justify-self: start;
  min-height: 32px;
}
.results {
  display: grid;
}
.results > *,
.members > .n-checkbox {
  min-height: 48px;
  align-items: center;
}
</style>
