<script setup lang="ts">
import type { JobMeter } from '#contract/field'
import type { FieldActs } from '#core/field'
import { shortTime, writtenAs } from '#web/kit'
import type { CallProblem } from '#web/kit'
import ReadingForm from './ReadingForm.vue'

/** The meters of the asset: preventive work depends on what they show, so they are always offered. */
defineProps<{ meters: readonly JobMeter[]; over: boolean; busy: boolean; problem: CallProblem | null }>()
const emit = defineEmits<{ read: [input: FieldActs['reading'], meter: JobMeter] }>()
const number = (value: string) => writtenAs('quantity', value)
</script>

<template>
  <section class="card" aria-label="Meters">
    <h2>Meters</h2>
    <div v-for="meter in meters" :key="meter.id" class="meter">
      <p>
        {{ meter.name }} <span class="mono label">{{ meter.tag }}</span><br />
        <span v-if="meter.readings[0]" class="label"
          >{{ meter.readHere ? 'Read here' : 'Last' }}: <strong class="mono">{{ number(meter.readings[0].value) }} {{ meter.unit }}</strong
          >, {{ shortTime(meter.readings[0].at) }}</span
        >
        <span v-else class="label">Never read yet</span>
      </p>
      <ReadingForm
        v-if="!over"
        :key="meter.readings.length"
        :meter="meter"
        :readings="meter.readings"
        :busy="busy"
        :problem="problem?.reasons.some(({ code }) => /^(reading|meter)_/.test(code)) ? problem.at('value') : null"
        @read="(reading) => emit('read', { meterId: meter.id, ...reading }, meter)"
      />
    </div>
  </section>
</template>

<style scoped>
.meter {
  display: grid;
  gap: 6px;
}
.meter + .meter {
  border-top: 1px solid var(--line);
  padding-top: 10px;
}
p {
  margin: 0;
}
</style>
