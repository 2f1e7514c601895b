<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, ref, watch } from 'vue'
import { moveOrders, moveRequests, readNeededReason } from '#contract/lists'
import type { BulkRow, NeededForAll } from '#contract/lists'
import { counted } from '#core/kit'
import { BULK_ORDER_MOVES, BULK_ORDER_RULES, BULK_REQUEST_MOVES, BULK_REQUEST_RULES } from '#core/lists'
import type { BulkOrderMove, BulkRequestMove, BulkRule, ListKind } from '#core/lists'
import { HOLD_REASON_NAMES, HOLD_REASONS, isSettled, ORDER_MOVES } from '#core/orders'
import type { HoldReason } from '#core/orders'
import { REQUEST_MOVES } from '#core/requests'
import type { Permission } from '#core/people'
import type { OrderLine } from '#contract/orders'
import type { RequestLine } from '#contract/requests'
import { texts, named, TextEntry, ListEntry, call, CallProblem, useDraft, useSession } from '#web/kit'
import BulkResult from './BulkResult.vue'
import type { WorkLine } from './useList'

/** One move of every marked row; how each fared is told row by row. */
const props = defineProps<{ kind: ListKind; lines: WorkLine[] }>()
const emit = defineEmits<{ clear: []; done: []; unmark: [number[]] }>()
const session = useSession()
const move = ref<string>('')
const reason = useDraft(() => `bulk-${props.kind}`)
const answer = ref('')
const holdReason = ref<HoldReason>('part')
const needed = ref<NeededForAll | null>(null)
const problem = ref('')
const busy = ref(false)
const result = ref<{ rows: BulkRow[]; rule: BulkRule } | null>(null)

/** Why a move makes no sense for a row is the row’s affair; a move that fits none is not offered. */
const fits = (name: string, line: WorkLine): boolean => {
  if (props.kind === 'requests') {
    const request = line as RequestLine
    return name === 'takeUp' ? request.state === 'new' && !request.takenUp : REQUEST_MOVES.decline.from.includes(request.state)
  }
  const order = line as OrderLine
  if (name === 'archive') return !order.archived && isSettled(order.state)
  if (name === 'restore') return order.archived || order.discarded
  return !order.discarded && ORDER_MOVES[name as 'hold'].from.includes(order.state)
}
const rules = computed<Record<string, BulkRule>>(() => (props.kind === 'orders' ? BULK_ORDER_RULES : BULK_REQUEST_RULES))
const offered = computed(() =>
  (props.kind === 'orders' ? [...BULK_ORDER_MOVES] : [...BULK_REQUEST_MOVES])
    .filter((name) => session.can(rules.value[name]!.may as Permission))
    .map((name) => ({ name: name as string, rule: rules.value[name]!, many: props.lines.filter((line) => fits(name, line)).length }))
    .filter((one) => one.many > 0),
)
const rule = computed(() => rules.value[move.value] ?? null)
const asks = computed(() => !!rule.value && (rule.value.reason !== 'none' || !!needed.value?.needed))
const mustWrite = computed(() => rule.value?.reason === 'required' || !!needed.value?.needed)

watch(
  () => `${move.value} ${props.lines.map((line) => line.id).join()}`,
  async () => {
    needed.value = null
    problem.value = ''
    if (!move.value || props.kind !== 'orders' || !props.lines.length) return
    const asked = `${move.value} ${props.lines.map((line) => line.id).join()}`
    const found = await call(readNeededReason, { move: move.value as BulkOrderMove, ids: props.lines.map((line) => line.id).join() }).catch(() => null)
    if (asked === `${move.value} ${props.lines.map((line) => line.id).join()}`) needed.value = found
  },
)

async function go(): Promise<void> {
  const words = needed.value?.answers.length ? [answer.value, reason.value.trim()].filter(Boolean).join(': ') : reason.value.trim()
  if (mustWrite.value && !words) {
    problem.value = needed.value?.answers.length ? 'Choose a reason.' : 'Write the reason in a few words.'
    return
  }
  await send(move.value, props.lines, words)
}

async function send(name: string, lines: { id: number; version: number }[], words: string): Promise<void> {
  busy.value = true
  problem.value = ''
  const items = lines.map(({ id, version }) => ({ id, version }))
  try {
    const { rows } =
      props.kind === 'orders'
        ? await call(moveOrders, {
            items,
            move: name as BulkOrderMove,
            reason: words || undefined,
            ...(name === 'hold' ? { holdReason: holdReason.value } : {}),
          })
        : await call(moveRequests, { items, move: name as BulkRequestMove, reason: words || undefined })
    result.value = { rows, rule: rules.value[name]! }
    move.value = reason.value = answer.value = ''
    emit(
      'unmark',
      rows.filter((row) => row.moved).map((row) => row.id),
    )
    emit('done')
  } catch (error) {
    if (!(error instanceof CallProblem)) throw error
    problem.value = error.reasons[0]?.sentence ?? error.message
  } finally {
    busy.value = false
  }
}

const takeBack = (rows: BulkRow[]) => send(result.value!.rule.back!, rows, 'Taken back at once')
</script>

<template>
  <form v-if="lines.length || result" class="bulk" aria-label="Marked rows" @submit.prevent="go" @keydown.ctrl.enter.prevent="go">
    <template v-if="lines.length">
      <strong>{{ counted(lines.length, 'row') }} marked</strong>
      <ListEntry
        id="bulk-move"
        v-model="move"
        class="choice"
        label-hidden
        label="What to do with them"
        placeholder="Do with all of them …"
        :options="offered.map((one) => ({ value: one.name, label: `${one.rule.label}${one.many < lines.length ? ` (fits ${one.many})` : ''}` }))"
      />
      <template v-if="rule">
        <ListEntry
          v-if="move === 'hold'"
          id="bulk-hold"
          v-model="holdReason"
          class="choice"
          label-hidden
          label="Waiting for"
          :options="named(HOLD_REASONS, HOLD_REASON_NAMES)"
        />
        <ListEntry
          v-if="needed?.answers.length"
          id="bulk-answer"
          v-model="answer"
          class="choice"
          label-hidden
          label="Reason"
          placeholder="Reason (needed)"
          :options="texts(needed.answers)"
        />
        <TextEntry
          v-if="asks"
          id="bulk-reason"
          v-model="reason"
          class="reason"
          label-hidden
          label="Reason"
          :max="400"
          :placeholder="`${rule.reasonLabel ?? 'Why'}${mustWrite && !needed?.answers.length ? ' (needed)' : ''}`"
        />
        <NButton type="primary" attr-type="submit" :disabled="busy">{{ rule.label }} <kbd>Ctrl Enter</kbd></NButton>
      </template>
      <NButton @click="emit('clear')">Unmark</NButton>
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    </template>
    <BulkResult v-if="result" :rows="result.rows" :rule="result.rule" :busy="busy" @close="result = null" @take-back="takeBack" />
  </form>
</template>

<style scoped src="./bulk.css"></style>
<style scoped>
.choice {
  width: auto;
}
.reason {
  flex: 1 1 220px;
  width: auto;
}
</style>
