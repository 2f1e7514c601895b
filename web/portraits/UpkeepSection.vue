<script setup lang="ts">
import { RouterLink } from 'vue-router'
import { readPortraitUpkeep } from '#contract/portraits'
import type { AnyRecord } from '#contract/portraits'
import { ruleSays } from '#core/preventive'
import { dayOf, LoadedPart, useRead, writtenAs, writtenDay } from '#web/kit'
import { useOpenSheet } from '#web/sheets'

/** What is planned for it and due next, and what its meters showed last. */
const { sheet: it } = useOpenSheet<AnyRecord>()
const read = useRead(readPortraitUpkeep, () => ({ register: it.value.register, id: it.value.id }), {
  holds: true,
  touchedBy: ({ orderId }) => orderId !== null,
})
const number = (value: string) => writtenAs('quantity', String(Number(value)))
</script>

<template>
  <LoadedPart :part="read">
    <p v-if="!read.value.value!.plans.length && !read.value.value!.meters.length" class="soft">No preventive plan is made for it.</p>
    <div v-if="read.value.value!.plans.length" class="scroll">
      <table class="plain-table" aria-label="Preventive plans">
        <thead>
          <tr>
            <th>Plan</th>
            <th>How often</th>
            <th>Next</th>
            <th>Last done</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="plan in read.value.value!.plans" :key="plan.id">
            <td>
              <span v-if="plan.asset" class="mono">{{ plan.asset }}</span> {{ plan.name }}
            </td>
            <td>{{ ruleSays(plan.rule) }}</td>
            <td>
              <template v-if="plan.nextOn">{{ writtenDay(plan.nextOn) }}</template><template v-else>–</template>
              <strong v-if="plan.late" class="late">late</strong>
              <RouterLink v-if="plan.orderId" class="mono" :to="`/desk/planning/order/${plan.orderId}`">{{ plan.orderNumber }}</RouterLink>
            </td>
            <td>{{ plan.lastDoneOn ? writtenDay(plan.lastDoneOn) : '–' }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <ul v-if="read.value.value!.meters.length" class="meters" aria-label="Meters">
      <li v-for="meter in read.value.value!.meters" :key="`${meter.asset} ${meter.name}`">
        <span class="mono">{{ meter.asset }}</span> {{ meter.name }} <strong>{{ number(meter.value) }} {{ meter.unit }}</strong>
        <span class="soft"
          >on {{ dayOf(meter.at)
          }}<template v-if="meter.before">, {{ number(String(Number(meter.value) - Number(meter.before))) }} since the one before</template></span
        >
      </li>
    </ul>
  </LoadedPart>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
}
.late {
  color: var(--buoy);
}
.meters {
  list-style: none;
  margin: 8px 0 0;
  padding: 0;
}
</style>
