<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { ref } from 'vue'
import type { TransferRow } from '#contract/assets'
import { TRANSFER_KIND_NAMES, TRANSFER_STATE_NAMES } from '#core/assets'
import type { TransferMove } from '#core/assets'
import { CallProblem, dayOf, PickField, placeChoices, RecordLink, serverNow, shortTime, TextEntry, toLocalField, useDraft, useUndo, writtenDay } from '#web/kit'
import { makeMove, MOVE_NAMES } from './transfers'

/** Assets going elsewhere: from where to where, why, how it stands, and what one may do with it. */
defineProps<{ rows: TransferRow[]; named?: boolean }>()
const emit = defineEmits<{ moved: [] }>()
const undo = useUndo()
const asking = ref<{ row: TransferRow; move: TransferMove } | null>(null)
const reason = useDraft(() => `transfer-${asking.value?.row.id ?? 0}`)
const place = ref<{ value: number; label: string } | null>(null)
const problem = ref<CallProblem | null>(null)
const busy = ref(false)

/** Refusing needs a reason; agreeing needs a place where none was named. */
function press(row: TransferRow, move: TransferMove): void {
  problem.value = null
  place.value = null
  if (move === 'refuse' || (move === 'agree' && !row.to.place)) asking.value = { row, move }
  else void make(row, move)
}
async function make(row: TransferRow, move: TransferMove): Promise<void> {
  if (busy.value) return
  busy.value = true
  try {
    await makeMove(row, move, { placeId: place.value?.value, reason: reason.value })
    undo.say(`${row.asset.tag}: ${MOVE_NAMES[move].toLowerCase()}.`)
    reason.value = ''
    asking.value = null
    emit('moved')
  } catch (error) {
    if (!(error instanceof CallProblem)) throw error
    problem.value = error
    asking.value ??= { row, move }
  } finally {
    busy.value = false
  }
}
const isAsked = (row: TransferRow) => asking.value?.row.id === row.id
const isOverdue = (row: TransferRow) => row.state === 'lent' && row.returnBy !== null && row.returnBy < toLocalField(serverNow()).slice(0, 10)
const sayWhat = (row: TransferRow) =>
  [
    TRANSFER_KIND_NAMES[row.kind].toLowerCase(),
    row.returnBy ? `back by ${writtenDay(row.returnBy)}` : '',
    row.returnedAt ? `back since ${dayOf(row.returnedAt)}` : '',
  ]
    .filter(Boolean)
    .join(', ')
</script>

<template>
  <ul class="transfers">
    <li v-for="row in rows" :key="row.id">
      <p>
        <strong :class="{ late: isOverdue(row) }">{{ TRANSFER_STATE_NAMES[row.state] }}</strong>
        {{ ' '
        }}<template v-if="named">
          <RecordLink :record="{ register: 'assets', id: row.asset.id }"
            ><span class="mono">{{ row.asset.tag }}</span> {{ row.asset.name }}</RecordLink
          ></template
        >
        from {{ row.from.place }}, {{ row.from.site }}, to {{ row.to.place ? `${row.to.place}, ` : '' }}{{ row.to.site }}; {{ sayWhat(row) }}
      </p>
      <p class="soft">
        {{ row.askedBy }}, <span class="mono">{{ shortTime(row.askedAt) }}</span>: “{{ row.reason }}”.<template v-if="row.decidedBy">
          {{ ' ' }} {{ row.decidedBy }}, <span class="mono">{{ shortTime(row.decidedAt!) }}</span><template v-if="row.note"
            >: “{{ row.note }}”</template
          ></template
        >
      </p>
      <p v-if="row.may.length && !isAsked(row)" class="acts">
        <NButton
          v-for="move in row.may"
          :key="move"
          size="small"
          :type="move === 'agree' || move === 'giveBack' ? 'primary' : 'default'"
          :disabled="busy"
          @click="press(row, move)"
          >{{ MOVE_NAMES[move] }}</NButton
        >
      </p>
      <form v-if="asking && isAsked(row)" class="ask" @submit.prevent="make(row, asking.move)" @keydown.esc.stop="asking = null">
        <TextEntry v-if="asking.move === 'refuse'" id="transfer-reason" v-model="reason" label="Why (needed)" :problem="problem?.at('reason')" />
        <PickField
          v-if="asking.move === 'agree'"
          id="transfer-place"
          label="Where it goes here (needed)"
          :value="place?.value ?? null"
          :current="place"
          :find="placeChoices"
          :problem="problem?.at('placeId')"
          @pick="(id, label) => (place = id ? { value: id as number, label } : null)"
        />
        <p v-for="one in (problem?.reasons ?? []).filter((found) => !found.field)" :key="one.code" class="problem" role="alert">{{ one.sentence }}</p>
        <p v-if="problem && !problem.reasons.length" class="problem" role="alert">{{ problem.message }}</p>
        <p class="acts">
          <NButton size="small" type="primary" attr-type="submit" :disabled="busy">{{ MOVE_NAMES[asking.move] }}</NButton>
          <NButton size="small" @click="asking = null">Leave it</NButton>
        </p>
      </form>
    </li>
  </ul>
</template>

<style scoped>
.transfers {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 12px;
}
.acts {
  display: flex;
  gap: 8px;
  margin-top: 4px;
}
.ask {
  display: grid;
  gap: 8px;
  margin-top: 6px;
  padding: 10px 12px;
  background: var(--shoal-faint);
  border-radius: 6px;
}
.late,
.problem {
  color: var(--buoy);
}
</style>
