<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, nextTick, ref, watch } from 'vue'
import { readRequest, triageRequest } from '#contract/requests'
import type { TriageFields } from '#contract/requests'
import { isChange } from '#core/events'
import { isUndecided, REQUEST_STATE_NAMES } from '#core/requests'
import { jumpTo, OthersHere, PickField, PriorityBar, ProblemNote, TargetGauge, TextEntry, useDraft, useSession } from '#web/kit'
import { AssetFills, ConflictBox, findOpenOrders, findOpenRequests, MoveBar, provideSheet, SectionList, useAssetChoice, useSheet } from '#web/sheets'
import { provideDeciding, REQUEST_FIELD_NAMES, useRequestFields } from './deciding'
import { REQUEST_SECTIONS } from './sections'
import { useRequestMoves } from './useRequestMoves'

/** The Sheet of a request: its head, the decision or what became of it, its facts, and what was said. */
const props = defineProps<{ id: number }>()
const emit = defineEmits<{ about: [{ placeId?: number; assetId?: number; requestId?: number }]; show: ['request' | 'order', number]; next: [] }>()
const session = useSession()
const { sheet, save, saveFrom, sentenceAt, conflict, settle, follow } = useSheet(props.id, readRequest, triageRequest)
follow(
  (change, now) =>
    isChange(change.kind) && (change.requestId === props.id || now.orders.some((one) => one.id === change.orderId) || now.joinedTo?.id === change.requestId),
)
const it = computed(() => sheet.value.value)
watch(it, (now) => now && emit('about', { placeId: now.place?.id, assetId: now.asset?.id, requestId: now.id }))

const { moves, go, choosing, joinTo, acceptInto, makeAnother, missingField } = useRequestMoves(it, sheet.load, () => emit('next'))
function whyNot(): string | undefined {
  if (!isUndecided(it.value!.state)) return 'It was decided; this stays as it was then. Its order can still be changed.'
  return session.can('requests.triage') ? undefined : 'Who triages decides this; you can read it.'
}
provideSheet({ sheet: computed(() => it.value!), whyNot, save, saveFrom, sentenceAt, reload: sheet.load, begun: ref(null) })

/** Decided field by field: the keyboard goes on to what is missing, and back to the Sheet when nothing is. */
async function decide(fields: TriageFields): Promise<void> {
  if (!(await save(fields))) return
  await nextTick()
  if (missingField.value) jumpTo(missingField.value)
  else document.querySelector<HTMLElement>('#sheet, #list-sheet')?.focus()
}
const choice = useAssetChoice(
  () => ({
    placeId: { value: it.value!.place?.id ?? null, words: it.value!.place ? `${it.value!.place.code} ${it.value!.place.name}` : '' },
    payerId: { value: it.value!.payerId, words: showValue('payerId', it.value!.payerId) },
  }),
  (assetId, taken, says) =>
    save({
      assetId,
      ...(taken.includes('placeId') ? { placeId: says!.place.id } : {}),
      ...(taken.includes('payerId') ? { payerId: says!.payer!.id } : {}),
    }),
)
const { asking } = choice
const fields = useRequestFields(decide, choice.pick)
provideDeciding({ fields, decide, joinTo })

const another = useDraft(
  () => `another-${props.id}`,
  () => it.value?.summary ?? '',
)
async function sendAnother(): Promise<void> {
  if (await makeAnother(another.value.trim())) another.value = ''
}
const target = computed(() => ({
  clock: 'working',
  startAt: it.value!.receivedAt,
  responseDueAt: it.value!.triageDueAt,
  closeAt: it.value!.triageCloseAt,
  completionDueAt: it.value!.triageDueAt,
  stoppedAt: null,
  finishedAt: it.value!.decidedAt,
}))
function showValue(field: string, value: unknown): string {
  if (value === null) return 'nothing'
  const choices = field in fields ? fields[field as keyof typeof fields].choices?.() : undefined
  return choices?.find((one) => one.value === value)?.label ?? String(value)
}
</script>

<template>
  <ProblemNote v-if="sheet.problem.value && !it" :problem="sheet.problem.value" @retry="sheet.load" />
  <div v-else-if="!it" class="loading" role="status" aria-label="Loading"><span class="bones" /><span class="bones" /><span class="bones tall" /></div>
  <article v-else class="request">
    <header class="head">
      <p class="line">
        <span class="mono">{{ it.number }}</span><span>{{ REQUEST_STATE_NAMES[it.state] }}</span
        ><PriorityBar v-if="it.priority" :priority="it.priority" /><TargetGauge :target="target" wide /><OthersHere :id="it.id" type="request" />
      </p>
      <h1 :title="it.summary">{{ it.summary }}</h1>
      <MoveBar :moves="moves" @go="go" @jump="jumpTo" />
      <PickField
        v-if="choosing === 'order'"
        id="into-order"
        only-typed
        label="Into which order: by number, words or place"
        :value="null"
        :find="findOpenOrders"
        @pick="acceptInto($event as number)"
      />
      <PickField
        v-else-if="choosing === 'request'"
        id="into-request"
        only-typed
        label="Join to which request: by number, words or place"
        :value="null"
        :find="(q) => findOpenRequests(q, it!.id)"
        @pick="joinTo($event as number)"
      />
      <form
        v-else-if="choosing === 'another'"
        class="another"
        @submit.prevent="sendAnother"
        @keydown.ctrl.enter.prevent="sendAnother"
        @keydown.esc.stop="choosing = null"
      >
        <TextEntry id="another-summary" v-model="another" label="What the other order is about, in one line" :max="140" required />
        <NButton type="primary" attr-type="submit">Make the order <kbd>Ctrl Enter</kbd></NButton>
        <NButton @click="choosing = null">Leave it</NButton>
      </form>
      <SectionList index :sheet="it" :sections="REQUEST_SECTIONS" />
    </header>
    <SectionList :sheet="it" :sections="REQUEST_SECTIONS" />
    <AssetFills v-if="asking" :asset="asking.says.label" :differences="asking.differences" @choose="choice.choose" @close="choice.leave" />
    <ConflictBox v-if="conflict" :conflict="conflict" :names="REQUEST_FIELD_NAMES" :show="showValue" @settle="settle" />
  </article>
</template>

<style scoped src="../sheets/sheet.css"></style>
<style scoped>
.another {
  display: grid;
  grid-template-columns: 1fr auto auto;
  gap: 8px;
  align-items: end;
}
</style>
