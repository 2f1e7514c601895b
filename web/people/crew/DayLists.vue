<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { ref } from 'vue'
import { addLeave, dropLeave, dropShiftException, readCrew, saveShiftException } from '#contract/people'
import type { CrewSheet } from '#contract/people'
import { writeStretches } from '#core/people'
import { call, dayOf, MomentEntry, TextEntry, useFormDraft } from '#web/kit'
import { FoldForm, useLineAct } from '#web/sheets'
import { LeaveFile } from '#web/shifts'

/** Days that are otherwise than the week says, and leave. */
const props = defineProps<{ crew: CrewSheet }>()
const emit = defineEmits<{ now: [CrewSheet] }>()
const days = useLineAct((crew: CrewSheet) => emit('now', crew))
const away = useLineAct((crew: CrewSheet) => emit('now', crew))
const [dayFold, leaveFold] = [ref<InstanceType<typeof FoldForm> | null>(null), ref<InstanceType<typeof FoldForm> | null>(null)]
const { form: day, kept: dayKept, drop: dropDay } = useFormDraft(`shift-${props.crew.id}`, { day: '', stretches: '', reason: '' })
const { form: leave, kept: leaveKept, drop: dropLeaveDraft } = useFormDraft(`leave-${props.crew.id}`, { from: '', until: '', reason: '' })
const anew = async () => emit('now', await call(readCrew, { id: props.crew.id }))
async function addDay(): Promise<void> {
  if (!(await days.act(() => call(saveShiftException, { id: props.crew.id, ...day }), 'That day is noted.'))) return
  dropDay()
  dayFold.value?.close()
}
async function goAway(): Promise<void> {
  if (!(await away.act(() => call(addLeave, { id: props.crew.id, ...leave }), 'The leave is noted.'))) return
  dropLeaveDraft()
  leaveFold.value?.close()
}
</script>

<template>
  <h3>Days that are otherwise</h3>
  <ul v-if="crew.exceptions.length">
    <li v-for="one in crew.exceptions" :key="one.id">
      {{ dayOf(one.day) }}: <span class="mono">{{ writeStretches(one.stretches) || 'off' }}</span><span v-if="one.reason" class="soft">, {{ one.reason }}</span>
      <NButton
        v-if="!crew.whyNot"
        size="tiny"
        :aria-label="`Take ${dayOf(one.day)} away`"
        @click="days.act(() => call(dropShiftException, { id: crew.id, itemId: one.id }), 'That day is as the week says.')"
        >×</NButton
      >
    </li>
  </ul>
  <p v-else class="soft">None from today on.</p>
  <FoldForm v-if="!crew.whyNot" ref="dayFold" label="Note a day" :begun="dayKept" @send="addDay">
    <MomentEntry id="shift-day" v-model="day.day" day label="Day" :problem="days.at('day')" />
    <TextEntry
      id="shift-stretches"
      v-model="day.stretches"
      label="At work (empty: off)"
      small
      mono
      placeholder="12:00-20:00"
      :max="80"
      :problem="days.at('stretches')"
    />
    <TextEntry id="shift-reason" v-model="day.reason" label="Why" small :max="120" />
    <NButton size="small" attr-type="submit" :disabled="days.busy.value || !day.day">Note the day</NButton>
  </FoldForm>
  <h3>Leave</h3>
  <ul v-if="crew.leaves.length">
    <li v-for="one in crew.leaves" :key="one.id">
      {{ dayOf(one.from) }} to {{ dayOf(one.until) }}<strong v-if="one.now">, now</strong><span v-if="one.reason" class="soft">, {{ one.reason }}</span>
      <NButton
        v-if="!crew.whyNot"
        size="tiny"
        :aria-label="`Take the leave from ${dayOf(one.from)} back`"
        @click="away.act(() => call(dropLeave, { id: crew.id, itemId: one.id }), 'They are not on leave then.')"
        >×</NButton
      >
    </li>
  </ul>
  <p v-else class="soft">None is noted.</p>
  <FoldForm v-if="!crew.whyNot" ref="leaveFold" label="Note leave" :begun="leaveKept" @send="goAway">
    <MomentEntry id="leave-from" v-model="leave.from" day label="From" :problem="away.at('from')" />
    <MomentEntry id="leave-until" v-model="leave.until" day label="Through" :problem="away.at('until')" />
    <TextEntry id="leave-reason" v-model="leave.reason" label="Why" small :max="120" />
    <NButton size="small" attr-type="submit" :disabled="away.busy.value || !leave.from || !leave.until">Note the leave</NButton>
  </FoldForm>
  <LeaveFile v-if="!crew.whyNot" :person-id="crew.id" @taken="anew" />
</template>

<style scoped src="../../sheets/lines.css"></style>
<style scoped>
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 4px;
  font-size: 13px;
}
li .n-button {
  margin-left: 8px;
}
</style>
