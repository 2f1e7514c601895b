<script setup lang="ts">
import { BarController, BarElement, CategoryScale, Chart, Legend, LinearScale, Tooltip } from 'chart.js'
import { computed, nextTick, onUnmounted, ref, watch } from 'vue'
import { RouterLink } from 'vue-router'
import { readPortraitCosts } from '#contract/portraits'
import { currencyDecimals, formatMinor } from '#core/kit'
import { ProblemNote, theme, useRead, useSession } from '#web/kit'
import { useOpenSheet } from '#web/sheets'
import type { AnyRecord } from '#contract/portraits'
import { listOf } from './listOf'

/** What finished work on it cost, by year and kind: drawn, and as a table whose years lead to the orders behind them. */
Chart.register(BarController, BarElement, CategoryScale, LinearScale, Legend, Tooltip)
const { sheet: it } = useOpenSheet<AnyRecord>()
const session = useSession()
const read = useRead(readPortraitCosts, () => (session.can('ledger.read') ? { register: it.value.register, id: it.value.id } : null), { holds: true })
const years = computed(() => read.value.value?.years ?? [])
const of = (year: number) => listOf(it.value.register, it.value.id, `finished=${year}-01-01..${year}-12-31&state=done,checked,closed`)
const sum = (year: (typeof years.value)[number]) => year.labourMinor + year.partsMinor + year.equipmentMinor + year.vendorMinor

const canvas = ref<HTMLCanvasElement | null>(null)
let chart: Chart | null = null
onUnmounted(() => chart?.destroy())
watch([years, theme], () => void nextTick(draw), { immediate: true })
function draw(): void {
  chart?.destroy()
  if (!canvas.value || !years.value.length) return
  const role = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(name).trim()
  const whole = 10 ** currencyDecimals(read.value.value!.currency)
  const bar = (label: string, pick: (year: (typeof years.value)[number]) => number, colour: string) => ({
    label,
    data: years.value.map((year) => pick(year) / whole),
    backgroundColor: role(colour),
    maxBarThickness: 48,
  })
  chart = new Chart(canvas.value, {
    type: 'bar',
    data: {
      labels: years.value.map((year) => String(year.year)),
      datasets: [
        bar('Labour', (year) => year.labourMinor, '--tide'),
        bar('Parts', (year) => year.partsMinor, '--shoal'),
        bar('Equipment', (year) => year.equipmentMinor, '--sand'),
        bar('Vendors', (year) => year.vendorMinor, '--violet'),
      ],
    },
    options: {
      animation: false,
      responsive: true,
      maintainAspectRatio: false,
      color: role('--ink'),
      scales: { x: { stacked: true, grid: { display: false } }, y: { stacked: true, beginAtZero: true, grid: { color: role('--line') } } },
    },
  })
}
</script>

<template>
  <p v-if="!session.can('ledger.read')" class="soft">Your role does not see what work cost.</p>
  <ProblemNote v-else-if="read.problem.value" :problem="read.problem.value" @retry="read.load" />
  <span v-else-if="!read.value.value" class="bones" role="status" aria-label="Loading" />
  <p v-else-if="!years.length" class="soft">Nothing was finished on it yet, so it has cost nothing.</p>
  <template v-else>
    <div class="chart"><canvas ref="canvas" role="img" aria-label="Cost by year: labour, parts, equipment and vendors; the table says the same" /></div>
    <div class="scroll">
      <table class="plain-table" aria-label="Cost by year">
        <thead>
          <tr>
            <th>Year</th>
            <th class="amount">Orders</th>
            <th class="amount">Labour</th>
            <th class="amount">Parts</th>
            <th class="amount">Equipment</th>
            <th class="amount">Vendors</th>
            <th class="amount">In all, {{ read.value.value.currency }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="year in years" :key="year.year">
            <td>
              <RouterLink v-if="of(year.year)" class="mono" :to="of(year.year)!">{{ year.year }}</RouterLink><span v-else class="mono">{{ year.year }}</span>
            </td>
            <td class="amount mono">{{ year.orders }}</td>
            <td class="amount mono">{{ formatMinor(year.labourMinor) }}</td>
            <td class="amount mono">{{ formatMinor(year.partsMinor) }}</td>
            <td class="amount mono">{{ formatMinor(year.equipmentMinor) }}</td>
            <td class="amount mono">{{ formatMinor(year.vendorMinor) }}</td>
            <td class="amount mono violet">{{ formatMinor(sum(year)) }}</td>
          </tr>
        </tbody>
      </table>
    </div>
  </template>
</template>

<style scoped>
.chart {
  height: 160px;
  max-width: 520px;
}
.bones {
  height: 160px;
}
.scroll {
  overflow-x: auto;
}
</style>
