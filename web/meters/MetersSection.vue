<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, nextTick, ref } from 'vue'
import { RouterLink } from 'vue-router'
import { addMeter, readMeters, retireMeter, strikeReading, takeReading } from '#contract/meters'
import type { MeterRow } from '#contract/meters'
import { call, LoadedPart, shortTime, TextEntry, useRead, useSession, writtenAs } from '#web/kit'
import { useLineAct, useOpenSheet } from '#web/sheets'
import ReadingForm from './ReadingForm.vue'

/** The meters of an asset: what each showed, how much it runs a day, and what was wrong struck out. */
const { sheet: it } = useOpenSheet<{ id: number }>()
const session = useSession()
const read = useRead(readMeters, () => ({ assetId: it.value.id }), { holds: true, touchedBy: ({ kind }) => kind.startsWith('meter.') })
const { act, at, busy } = useLineAct<{ rows: MeterRow[]; mayEdit: boolean }>((now) => void (read.value.value = now))
const mayRead = computed(() => session.can('orders.edit'))
const number = (value: string | number) => writtenAs('quantity', String(Number(Number(value).toPrecision(10))))
const SHOWN = 4
const all = ref<number | null>(null)
const shownOf = (meter: MeterRow) => (all.value === meter.id ? meter.readings : meter.readings.slice(0, SHOWN))
const counting = (meter: MeterRow) => meter.readings.filter(({ struck }) => !struck)

const adding = ref(false)
const name = ref('')
const unit = ref('')
const rollsAt = ref('')
async function add(): Promise<void> {
  const input = { assetId: it.value.id, name: name.value.trim(), unit: unit.value.trim(), ...(rollsAt.value.trim() ? { rollsAt: rollsAt.value.trim() } : {}) }
  if (!(await act(() => call(addMeter, input), `${input.name} is there to be read.`))) return
  adding.value = false
  name.value = unit.value = rollsAt.value = ''
}
async function open(): Promise<void> {
  adding.value = true
  await nextTick()
  document.getElementById('meter-name')?.focus()
}
/** Which meter a refusal is about. */
const refused = ref<number | null>(null)
function take(meter: MeterRow, reading: { value: string; answer?: 'rolled' | 'exchanged' | 'sure' }): void {
  refused.value = meter.id
  void act(() => call(takeReading, { id: meter.id, ...reading }), `${meter.name}: ${number(reading.value)} ${meter.unit} is written down.`)
}
const striking = ref<number | null>(null)
const why = ref('')
async function strike(id: number): Promise<void> {
  if (!(await act(() => call(strikeReading, { id, reason: why.value.trim() }), 'The reading is struck out.'))) return
  striking.value = null
  why.value = ''
}
const retire = (meter: MeterRow) => act(() => call(retireMeter, { id: meter.id }), `${meter.name} is taken off.`)
</script>

<template>
  <LoadedPart :part="read">
    <p v-if="!read.value.value!.rows.length && !adding" class="soft">It has no meter. With one, whoever works on it is asked what it shows.</p>
    <article v-for="meter in read.value.value!.rows" :key="meter.id" :aria-label="meter.name">
      <h3>
        {{ meter.name }}
        <span class="soft"
          >{{ number(meter.ran) }} {{ meter.unit }} run since the first reading<template v-if="meter.usualPerDay !== null"
            >, about {{ number(meter.usualPerDay.toFixed(1)) }} {{ meter.unit }} a day</template
          ><template v-if="meter.rollsAt">, at nought again at {{ number(meter.rollsAt) }}</template></span
        >
      </h3>
      <ul v-if="meter.readings.length">
        <li v-for="one in shownOf(meter)" :key="one.id" :class="{ struck: one.struck }">
          <strong class="mono">{{ number(one.value) }} {{ meter.unit }}</strong>
          <span class="soft"
            >{{ shortTime(one.at) }}, {{ one.who }}<template v-if="one.anew">, on a new counter</template
            ><template v-if="one.order">
              on <RouterLink class="mono" :to="`/desk/field/order/${one.order.id}`">{{ one.order.number }}</RouterLink></template
            ><template v-if="one.struck"> · struck out by {{ one.struck.by }}: {{ one.struck.reason }}</template></span
          >
          <NButton
            v-if="mayRead && !one.struck && striking !== one.id"
            text
            size="small"
            type="primary"
            :aria-label="`Strike out ${one.value} ${meter.unit}`"
            @click="striking = one.id"
            >Strike out</NButton
          >
          <form v-if="striking === one.id" class="line" @submit.prevent="strike(one.id)" @keydown.esc.stop="striking = null">
            <TextEntry id="strike-why" v-model="why" label="Why it is wrong" :max="200" :problem="at('reason')" />
            <NButton attr-type="submit" :disabled="busy || !why.trim()">Strike out</NButton>
            <NButton @click="striking = null">Leave it</NButton>
          </form>
        </li>
      </ul>
      <p v-if="meter.readings.length > SHOWN && all !== meter.id">
        <NButton text size="small" type="primary" @click="all = meter.id">All {{ meter.readings.length }} readings</NButton>
      </p>
      <div v-if="mayRead" class="line">
        <ReadingForm
          :key="meter.readings.length"
          :meter="meter"
          :readings="counting(meter)"
          :busy="busy"
          :problem="refused === meter.id ? at('value') : null"
          @read="take(meter, $event)"
        />
        <NButton v-if="read.value.value!.mayEdit" size="small" quaternary :aria-label="`Take it off: ${meter.name}`" :disabled="busy" @click="retire(meter)"
          >Take it off</NButton
        >
      </div>
    </article>
    <form v-if="adding" class="line" aria-label="A meter" @submit.prevent="add" @keydown.esc.stop="adding = false">
      <TextEntry id="meter-name" v-model="name" label="What it counts" placeholder="Running hours" :max="60" :problem="at('name')" />
      <TextEntry id="meter-unit" v-model="unit" class="short" label="Unit" placeholder="h" :max="16" :problem="at('unit')" />
      <TextEntry id="meter-rolls" v-model="rollsAt" class="short" mono label="At nought again at" placeholder="never" :problem="at('rollsAt')" />
      <NButton type="primary" attr-type="submit" :disabled="busy || !name.trim() || !unit.trim()">Add it</NButton>
      <NButton @click="adding = false">Leave it</NButton>
    </form>
    <p v-else-if="read.value.value!.mayEdit"><NButton size="small" @click="open">Add a meter</NButton></p>
  </LoadedPart>
</template>

<style scoped>
article {
  display: grid;
  gap: 4px;
  padding-bottom: 10px;
  border-bottom: 1px solid var(--line);
}
h3 {
  margin: 0;
  font-size: 14px;
}
h3 .soft {
  font-weight: 400;
  margin-left: 6px;
}
ul {
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 8px;
  align-items: baseline;
}
.struck strong {
  text-decoration: line-through;
  font-weight: 400;
}
.line {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: end;
}
.short {
  width: 130px;
}
p {
  margin: 0;
}
</style>
