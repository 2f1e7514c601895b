<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed } from 'vue'
import { readPlanEstimate } from '#contract/methods'
import type { OrderFields, OrderSheet } from '#contract/orders'
import { LoadedPart, useRead, writtenAs } from '#web/kit'
import { useOpenSheet } from '#web/sheets'

/** What the plan will cost, line by line, beside what was entered, agreed to, and what such orders really cost. */
const props = defineProps<{ orderId: number; version: number }>()
const { save } = useOpenSheet<OrderSheet, OrderFields>()
const read = useRead(readPlanEstimate, () => ({ orderId: props.orderId }), {
  holds: true,
  touchedBy: ({ orderId }) => orderId === props.orderId,
})
const it = computed(() => read.value.value!)
const money = (minor: number) => writtenAs('money', minor)
const over = computed(() => (it.value.approvedMinor === null ? 0 : it.value.totalMinor - it.value.approvedMinor))
</script>

<template>
  <LoadedPart :part="read">
    <div v-if="it.lines.length || it.unknown.length" id="s-estimate" class="estimate" role="group" tabindex="-1" aria-label="Estimate">
      <table class="plain-table" aria-label="What it will cost">
        <tbody>
          <tr v-for="(line, index) in it.lines" :key="index">
            <td>{{ line.what }}</td>
            <td class="soft">{{ line.how }}</td>
            <td class="amount mono">{{ money(line.costMinor) }}</td>
          </tr>
        </tbody>
        <tfoot>
          <tr>
            <th colspan="2">By the plan</th>
            <td class="amount mono">
              <strong>{{ money(it.totalMinor) }}</strong>
            </td>
          </tr>
          <tr>
            <td colspan="2" class="soft">Entered as the estimate</td>
            <td class="amount mono">{{ it.enteredMinor === null ? '–' : money(it.enteredMinor) }}</td>
          </tr>
          <tr v-if="it.approvedMinor !== null">
            <td colspan="2" class="soft">Agreed to</td>
            <td class="amount mono">{{ money(it.approvedMinor) }}</td>
          </tr>
          <tr v-if="it.like">
            <td colspan="2" class="soft">
              The last {{ it.like.orders }} like it cost at the median; eight of ten {{ money(it.like.fromMinor) }} to {{ money(it.like.toMinor) }}
            </td>
            <td class="amount mono">{{ money(it.like.medianMinor) }}</td>
          </tr>
        </tfoot>
      </table>
      <p v-for="one in it.unknown" :key="one" class="problem">{{ one }}</p>
      <template v-if="it.changes?.length">
        <p>{{ it.outgrown ? 'It has grown further than may pass without being asked about again' : 'Planned differently from what was agreed to' }}:</p>
        <ul class="changes" aria-label="Changed since it was agreed to">
          <li v-for="change in it.changes" :key="change.what">
            {{ change.what }}: {{ change.before ?? 'nothing' }} → {{ change.now ?? 'nothing' }}
            <span class="mono">{{ change.byMinor < 0 ? '−' : '+' }}{{ money(Math.abs(change.byMinor)) }}</span>
          </li>
        </ul>
      </template>
      <p v-if="over > 0" :class="it.outgrown ? 'problem' : 'soft'">
        The plan comes to {{ money(over) }} more than was agreed to{{
          it.outgrown ? '. Ask for approval again, or plan less' : `; up to ${it.tolerancePercent} % may pass`
        }}.
      </p>
      <p v-if="it.mayTake && it.totalMinor > 0 && it.totalMinor !== it.enteredMinor">
        <NButton size="small" @click="save({ estimateMinor: it.totalMinor })">Take {{ money(it.totalMinor) }} as the estimate</NButton>
      </p>
    </div>
  </LoadedPart>
</template>

<style scoped>
.estimate {
  margin-top: 12px;
  max-width: 640px;
}
.estimate p {
  margin: 6px 0 0;
}
tfoot td,
tfoot th {
  text-align: left;
  font-weight: inherit;
}
tfoot th {
  font-size: inherit;
  color: var(--ink);
}
.changes {
  margin: 2px 0 0;
  padding-left: 18px;
}
.amount {
  text-align: right;
  color: var(--violet);
}
</style>
