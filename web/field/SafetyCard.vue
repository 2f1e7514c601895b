<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, reactive, ref, useTemplateRef, watch } from 'vue'
import type { JobSheet } from '#contract/field'
import { hazardsAsRead, permitsMissing } from '#core/field'
import type { FieldActs } from '#core/field'
import { PERMIT_NAMES } from '#core/methods'
import { fromLocalField, shortTime, TextEntry, timeIn, toLocalField, useNow } from '#web/kit'
import type { CallProblem } from '#web/kit'

/** What is dangerous here: read before work begins, with the permits it takes. */
const props = defineProps<{
  job: Pick<JobSheet, 'hazards' | 'hazardsReadAt' | 'permits'>
  over: boolean
  busy: boolean
  problem: CallProblem | null
}>()
const emit = defineEmits<{ read: [FieldActs['hazards']]; hold: [FieldActs['permit']] }>()
const now = useNow()
const held = computed(() => props.job.permits.map((one) => ({ ...one, fromAt: new Date(one.fromAt), untilAt: new Date(one.untilAt) })))
const missing = computed(() => (props.over ? [] : permitsMissing(props.job.hazards, held.value, new Date(now.value))))
const clock = (at: number) => toLocalField(new Date(at)).slice(11)
const said = reactive({ number: '', from: clock(now.value), until: '' })
const wrong = ref('')
const readLine = useTemplateRef('readLine')

let pressed = false
function read(): void {
  pressed = true
  emit('read', { read: hazardsAsRead(props.job.hazards) })
}
/** The button is gone once it was pressed: whoever has no mouse goes on from what stands in its place. */
watch(
  () => props.job.hazardsReadAt,
  () => {
    if (pressed && document.activeElement === document.body) readLine.value?.focus({ preventScroll: true })
    pressed = false
  },
  { flush: 'post' },
)

/** Of today; what ends earlier on the clock than it begins ends tomorrow. */
function hold(): void {
  const [from, until] = [timeIn(said.from), timeIn(said.until)]
  wrong.value = from && until ? '' : 'Write times like 16:30.'
  if (!from || !until) return
  const day = toLocalField(new Date(now.value)).slice(0, 10)
  const fromAt = fromLocalField(`${day}T${from}`)
  const ends = fromLocalField(`${day}T${until}`)
  const untilAt = ends > fromAt ? ends : new Date(ends.getTime() + 86_400_000)
  emit('hold', { kind: missing.value[0]!, number: said.number.trim(), fromAt: fromAt.toISOString(), untilAt: untilAt.toISOString() })
  Object.assign(said, { number: '', until: '' })
}
</script>

<template>
  <section class="card danger" aria-label="Hazards">
    <h2>Hazards</h2>
    <ul>
      <li v-for="(one, index) in job.hazards" :key="index">
        <strong>{{ one.hazard }}</strong><template v-if="one.control">: {{ one.control }}</template>
        <span v-if="one.permit" class="label"> Takes a permit: {{ PERMIT_NAMES[one.permit].toLowerCase() }}.</span>
      </li>
    </ul>
    <p v-if="job.hazardsReadAt" ref="readLine" class="label" tabindex="-1">
      You read them <span class="mono">{{ shortTime(job.hazardsReadAt) }}</span>.
    </p>
    <NButton v-else-if="!over" type="primary" :disabled="busy" @click="read">I have read them</NButton>
    <p v-for="one in job.permits" :key="one.id">
      {{ PERMIT_NAMES[one.kind] }} <span class="mono">{{ one.number }}</span>,
      <span class="mono">{{ shortTime(one.fromAt) }} to {{ shortTime(one.untilAt) }}</span>
    </p>
    <form v-if="job.hazardsReadAt && missing[0]" class="permit" :aria-label="`Permit: ${PERMIT_NAMES[missing[0]]}`" @submit.prevent="hold">
      <p>Your permit: {{ PERMIT_NAMES[missing[0]].toLowerCase() }}</p>
      <TextEntry id="permit-number" v-model="said.number" label="Number" mono :max="40" :problem="problem?.at('number')" />
      <div class="times">
        <TextEntry id="permit-from" v-model="said.from" label="From" mono inputmode="numeric" :problem="problem?.at('fromAt')" />
        <TextEntry id="permit-until" v-model="said.until" label="Until" mono inputmode="numeric" :problem="problem?.at('untilAt')" />
      </div>
      <p v-if="wrong" class="problem" role="alert">{{ wrong }}</p>
      <NButton type="primary" attr-type="submit" :disabled="busy || !said.number.trim()">Write it down</NButton>
    </form>
  </section>
</template>

<style scoped>
.danger {
  border-left: 6px solid var(--buoy);
}
ul {
  margin: 0;
  padding-left: 18px;
}
.permit {
  display: grid;
  gap: 8px;
}
.times {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}
</style>
