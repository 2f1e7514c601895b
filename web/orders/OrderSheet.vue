<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, nextTick, ref, watch } from 'vue'
import * as contract from '#contract/orders'
import { isChange } from '#core/events'
import { formatMinor } from '#core/kit'
import { editReason, isSettled } from '#core/orders'
import { OthersHere, PriorityBar, ProblemNote, StageRing, TargetGauge, useSession, jumpTo, useVocabulary } from '#web/kit'
import { AssetFills, ConflictBox, MoveBar, ORDER_FIELD_NAMES, provideSheet, SectionList, useAssetChoice, useSheet } from '#web/sheets'
import type { OfferedMove } from '#web/sheets'
import { openPrint, printing } from '#web/jobsheets'
import { provideOrderFields, useOrderFields } from './orderFields'
import { ORDER_SECTIONS } from './sections'
import { sharesSay } from './sharesSay'
import OwnStatePick from './OwnStatePick.vue'
import { useOrderMoves } from './useOrderMoves'

/** The Sheet of an order: its head, what is decided where it stands, its facts, and what belongs to it. */
const props = defineProps<{ id: number }>()
const emit = defineEmits<{ about: [{ placeId?: number; assetId?: number; orderId?: number }] }>()
const session = useSession()
const words = useVocabulary()
const { sheet, save, saveFrom, sentenceAt, conflict, settle, follow } = useSheet(props.id, contract.readOrder, contract.editOrder)
follow(
  (change, now) =>
    isChange(change.kind) &&
    (change.orderId === props.id ||
      now.requests.some((one) => one.id === change.requestId) ||
      now.members.some((one) => one.id === change.orderId) ||
      now.lead?.id === change.orderId),
)
const it = computed(() => sheet.value.value)
watch(it, (now) => now && emit('about', { placeId: now.place?.id, assetId: now.asset?.id, orderId: now.id }))

function whyNot(field: string): string | undefined {
  const { discarded, state } = it.value!
  if (discarded) return 'This draft was discarded. Bring it back to change it.'
  if (isSettled(state)) return 'The order is over; this stays as it was.'
  if (!session.can('orders.edit')) return 'Who plans the order writes this; you can read it.'
  return editReason(state, field)?.sentence
}
const begun = ref<string | null>(null)
provideSheet({ sheet: computed(() => it.value!), whyNot, save, saveFrom, sentenceAt, reload: sheet.load, begun })

const { moves, go, restore, busy } = useOrderMoves(it, sheet.load)
/** What sections begin from the head, among the moves. */
const offered = computed<OfferedMove[]>(() => [
  ...moves.value,
  ...ORDER_SECTIONS.flatMap(({ act, anchor }) =>
    !act || !it.value || !act.at.includes(it.value.state) || !session.can(act.may)
      ? []
      : [{ ...act, move: anchor, reasons: [], reason: 'none' as const, onward: act.onwardAt.includes(it.value.state), opens: () => begin(anchor) }],
  ),
  printing,
])
const act = (move: string, given: Parameters<typeof go>[1]) => (move === printing.move ? openPrint(props.id, given.choice ?? '') : go(move, given))
async function begin(anchor: string): Promise<void> {
  begun.value = anchor
  await nextTick()
  // What is begun may have to be fetched first.
  for (let n = 0; n < 40 && !document.getElementById(`s-${anchor}-begun`); n++) await new Promise((resolve) => setTimeout(resolve, 25))
  jumpTo(`${anchor}-begun`)
}

const choice = useAssetChoice(
  () => {
    const { place, shares, vendorId, contactName, contactPhone } = it.value!
    return {
      placeId: { value: place?.id ?? null, words: place ? `${place.code} ${place.name}` : '' },
      // Several payers were agreed on with care: an asset does not touch them.
      ...(shares.length > 1 ? {} : { payerId: { value: shares[0]?.payerId ?? null, words: sharesSay(shares) ?? '' } }),
      vendorId: { value: vendorId, words: showValue('vendorId', vendorId) },
      contact: { value: contactName, words: [contactName, contactPhone].filter(Boolean).join(', ') },
    }
  },
  (assetId, taken, says) =>
    save({
      assetId,
      ...(taken.includes('placeId') ? { placeId: says!.place.id } : {}),
      ...(taken.includes('payerId') ? { shares: [{ payerId: says!.payer!.id, shareBp: 10_000 }] } : {}),
      ...(taken.includes('vendorId') ? { vendorId: says!.vendor!.id } : {}),
      ...(taken.includes('contact') ? { contactName: says!.contact!.name, contactPhone: says!.contact!.phone } : {}),
    }),
)
const { asking } = choice
const fields = useOrderFields(choice.pick)
provideOrderFields(fields)

function showValue(field: string, value: unknown): string {
  if (field === 'estimateMinor' && value !== null) return formatMinor(Number(value))
  if (value === null) return 'nothing'
  const choices = field in fields ? fields[field as keyof typeof fields].choices?.() : undefined
  return (
    choices?.find((one) => one.value === value)?.label ?? words.lists?.accounts.find((one) => field.endsWith('Id') && one.id === value)?.name ?? String(value)
  )
}
</script>

<template>
  <ProblemNote v-if="sheet.problem.value && !it" :problem="sheet.problem.value" @retry="sheet.load" />
  <div v-else-if="!it" class="loading" role="status" aria-label="Loading"><span class="bones" /><span class="bones" /><span class="bones tall" /></div>
  <article v-else class="order">
    <header class="head">
      <p class="line">
        <span class="mono">{{ it.number }}</span><StageRing :state="it.state" :held-from="it.facts.heldFrom" /><OwnStatePick
          :order="it"
          @changed="sheet.load"
        /><PriorityBar :priority="it.priority" /><TargetGauge :target="it.target" wide /><OthersHere :id="it.id" type="order" />
      </p>
      <h1 :title="it.summary">{{ it.summary }}</h1>
      <MoveBar :moves="offered" :busy="busy" @go="act" @jump="jumpTo" />
      <SectionList index :sheet="it" :sections="ORDER_SECTIONS" />
    </header>
    <p v-if="it.discarded" class="outcome">This draft was discarded. <NButton @click="restore">Bring it back</NButton></p>
    <p v-if="it.archived" class="outcome">Archived: out of the daily view, found by searching. <NButton @click="restore">Bring it back</NButton></p>
    <SectionList :sheet="it" :sections="ORDER_SECTIONS" />
    <AssetFills v-if="asking" :asset="asking.says.label" :differences="asking.differences" @choose="choice.choose" @close="choice.leave" />
    <ConflictBox v-if="conflict" :conflict="conflict" :names="ORDER_FIELD_NAMES" :show="showValue" @settle="settle" />
  </article>
</template>

<style scoped src="../sheets/sheet.css"></style>
