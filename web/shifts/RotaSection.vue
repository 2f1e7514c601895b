<script setup lang="ts">
import { ArrowDown, ArrowUp, X } from '@lucide/vue'
import { NButton } from 'naive-ui/es/button'
import { computed, ref, watch } from 'vue'
import type { RecordFrame } from '#contract/registers'
import { addSwap, dropSwap, keepRota, readRota } from '#contract/shifts'
import type { RotaSheet } from '#contract/shifts'
import { MOST_TURN_DAYS } from '#core/shifts'
import { call, fromLocalField, ListEntry, LoadedPart, MomentEntry, NumberEntry, rowsNamed, spanTime, TextEntry, useRead } from '#web/kit'
import { FoldForm, useLineAct, useOpenSheet } from '#web/sheets'

/** Who of a team is on call, in turn; who stands in for a while; how the next weeks look. */
const { sheet: open } = useOpenSheet<RecordFrame>()
const rota = useRead(readRota, () => ({ teamId: open.value.id }), {
  holds: true,
  touchedBy: (change) => (change.register === 'teams' && change.recordId === open.value.id) || change.kind === 'people.crew',
})
const it = computed(() => rota.value.value)
const draft = ref<Pick<RotaSheet, 'memberIds' | 'startDay' | 'turnDays' | 'handover'> | null>(null)
const begin = () =>
  it.value && (draft.value = { memberIds: [...it.value.memberIds], startDay: it.value.startDay, turnDays: it.value.turnDays, handover: it.value.handover })
const { act, at, busy } = useLineAct<RotaSheet>((now) => void (rota.value.value = now))
const name = (id: number) => it.value?.technicians.find((one) => one.id === id)?.name ?? 'Somebody who left'
const adding = ref<number | null>(null)
watch(adding, (id) => {
  if (id === null || !draft.value) return
  draft.value.memberIds.push(id)
  adding.value = null
})
function move(index: number, by: number): void {
  const ids = draft.value!.memberIds
  const [one] = ids.splice(index, 1)
  ids.splice(index + by, 0, one!)
}
async function keep(): Promise<void> {
  if (await act(() => call(keepRota, { teamId: open.value.id, version: it.value!.version, ...draft.value! }), 'Who is on call is noted.')) draft.value = null
}
const fold = ref<InstanceType<typeof FoldForm> | null>(null)
const swap = ref({ technicianId: null as number | null, from: '', until: '', reason: '' })
const swaps = useLineAct<RotaSheet>((now) => void (rota.value.value = now))
async function standIn(): Promise<void> {
  const { technicianId, from, until, reason } = swap.value
  if (!technicianId || !from || !until) return
  const span = { from: fromLocalField(from).toISOString(), until: fromLocalField(until).toISOString() }
  if (!(await swaps.act(() => call(addSwap, { teamId: open.value.id, technicianId, ...span, reason: reason.trim() }), `${name(technicianId)} stands in.`)))
    return
  swap.value = { technicianId: null, from: '', until: '', reason: '' }
  fold.value?.close()
}
</script>

<template>
  <LoadedPart :part="rota">
    <template v-if="!draft">
      <p v-if="!it!.memberIds.length" class="soft">Nobody of this team is on call.</p>
      <table v-else class="plain-table">
        <thead>
          <tr>
            <th>Who</th>
            <th>When</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="span in it!.ahead.slice(0, 8)" :key="span.from">
            <td>{{ span.name }}<span v-if="span.swapped" class="soft">, stands in</span><strong v-if="span.away" class="wrong"> on leave then</strong></td>
            <td class="mono">{{ spanTime(span.from, span.until) }}</td>
          </tr>
        </tbody>
      </table>
      <NButton v-if="!it!.whyNot" size="small" @click="begin">{{ it!.memberIds.length ? 'Change the turns' : 'Say who is on call' }}</NButton>
    </template>
    <form v-else class="form" aria-label="On call in turn" @submit.prevent="keep" @keydown.esc.stop="draft = null">
      <ol>
        <li v-for="(id, index) in draft.memberIds" :key="`${index}-${id}`">
          <span>{{ name(id) }}</span>
          <NButton size="tiny" quaternary :disabled="!index" :aria-label="`${name(id)} earlier`" @click="move(index, -1)"><ArrowUp :size="14" /></NButton>
          <NButton size="tiny" quaternary :disabled="index === draft.memberIds.length - 1" :aria-label="`${name(id)} later`" @click="move(index, 1)"
            ><ArrowDown :size="14"
          /></NButton>
          <NButton size="tiny" quaternary :aria-label="`Leave out ${name(id)}`" @click="draft.memberIds.splice(index, 1)"><X :size="14" /></NButton>
        </li>
      </ol>
      <ListEntry
        id="rota-add"
        v-model="adding"
        label="Next in turn"
        placeholder="Add somebody"
        :options="rowsNamed(it!.technicians)"
        :problem="at('memberIds')"
      />
      <div class="row">
        <MomentEntry id="rota-start" v-model="draft.startDay" day label="First turn begins" :problem="at('startDay')" />
        <NumberEntry
          id="rota-days"
          v-model="draft.turnDays as number | null"
          label="A turn lasts"
          unit="days"
          :least="1"
          :most="MOST_TURN_DAYS"
          :problem="at('turnDays')"
        />
        <TextEntry id="rota-hour" v-model="draft.handover" label="Handed over at" mono :max="5" :problem="at('handover')" />
      </div>
      <div class="row">
        <NButton type="primary" size="small" attr-type="submit" :disabled="busy">Keep the turns</NButton>
        <NButton size="small" @click="draft = null">Leave it</NButton>
      </div>
    </form>
    <template v-if="it!.memberIds.length && !draft">
      <ul v-if="it!.swaps.length">
        <li v-for="one in it!.swaps" :key="one.id">
          {{ one.name }} stands in, <span class="mono">{{ spanTime(one.from, one.until) }}</span><span v-if="one.reason" class="soft">, {{ one.reason }}</span>
          <NButton
            v-if="!it!.whyNot"
            size="tiny"
            :aria-label="`${one.name} does not stand in`"
            @click="swaps.act(() => call(dropSwap, { teamId: open.id, itemId: one.id }), 'It is as the turns say.')"
            >×</NButton
          >
        </li>
      </ul>
      <FoldForm v-if="!it!.whyNot" ref="fold" label="Somebody stands in" @send="standIn">
        <ListEntry id="swap-who" v-model="swap.technicianId" label="Who" :options="rowsNamed(it!.technicians)" :problem="swaps.at('technicianId')" />
        <MomentEntry id="swap-from" v-model="swap.from" label="From" :problem="swaps.at('from')" />
        <MomentEntry id="swap-until" v-model="swap.until" label="Until" :problem="swaps.at('until')" />
        <TextEntry id="swap-why" v-model="swap.reason" label="Why" small :max="120" />
        <NButton size="small" attr-type="submit" :disabled="swaps.busy.value || !swap.technicianId || !swap.from || !swap.until">Note it</NButton>
      </FoldForm>
    </template>
  </LoadedPart>
</template>

<style scoped src="../sheets/lines.css"></style>
<style scoped src="../stock/form.css"></style>
<style scoped>
ol,
ul {
  margin: 0;
  padding-left: 22px;
}
ul {
  list-style: none;
  padding: 0;
}
.wrong {
  color: var(--buoy);
}
table {
  margin-bottom: 8px;
}
</style>
