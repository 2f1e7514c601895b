<script setup lang="ts">
import { BarController, BarElement, CategoryScale, Chart, Legend, LinearScale, Tooltip } from 'chart.js'
import { nextTick, onUnmounted, ref, watch } from 'vue'
import { readFigures } from '#contract/insight'
import { formatMinor } from '#core/kit'
import { RouterLink } from 'vue-router'
import { ORDER_STATE_NAMES } from '#core/orders'
import { dayOf, OwnMark, ProblemNote, RecordLink, theme, useRead } from '#web/kit'

Chart.register(BarController, BarElement, CategoryScale, LinearScale, Legend, Tooltip)
const figures = useRead(readFigures, {})
const canvas = ref<HTMLCanvasElement | null>(null)
let chart: Chart | null = null
onUnmounted(() => chart?.destroy())

watch([figures.value, theme], () => void nextTick(draw))
function draw(): void {
  const found = figures.value.value
  if (!canvas.value || !found) return
  const role = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(name).trim()
  chart?.destroy()
  Chart.defaults.font.family = "'Atkinson Hyperlegible Next', sans-serif"
  Chart.defaults.color = role('--ink')
  chart = new Chart(canvas.value, {
    type: 'bar',
    data: {
      labels: found.byMonth.map((row) => row.month),
      datasets: [
        {
          label: 'Requests received',
          data: found.byMonth.map((row) => row.requests),
          backgroundColor: role('--shoal'),
          borderColor: role('--tide'),
          borderWidth: 1,
        },
        { label: 'Orders finished', data: found.byMonth.map((row) => row.finished), backgroundColor: role('--tide') },
        { label: 'Finished on time', data: found.byMonth.map((row) => row.finishedOnTime), backgroundColor: role('--violet') },
      ],
    },
    options: {
      animation: false,
      responsive: true,
      maintainAspectRatio: false,
      scales: { x: { grid: { display: false } }, y: { beginAtZero: true, grid: { color: role('--line') } } },
    },
  })
}
</script>

<template>
  <div class="page">
    <header><h1>Insight</h1></header>
    <ProblemNote v-if="figures.problem.value" :problem="figures.problem.value" @retry="figures.load" />
    <template v-else-if="figures.value.value">
      <section aria-label="A year of work">
        <h2>A year of work</h2>
        <div class="chart">
          <canvas ref="canvas" role="img" aria-label="Requests received, orders finished and finished on time, by month; the table below says the same" />
        </div>
        <details>
          <summary>The same as a table</summary>
          <table class="plain-table">
            <thead>
              <tr>
                <th>Month</th>
                <th class="amount">Received</th>
                <th class="amount">Finished</th>
                <th class="amount">On time</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="row in figures.value.value.byMonth" :key="row.month">
                <td class="mono">{{ row.month }}</td>
                <td class="amount">{{ row.requests }}</td>
                <td class="amount">{{ row.finished }}</td>
                <td class="amount">{{ row.finishedOnTime }}</td>
              </tr>
            </tbody>
          </table>
        </details>
      </section>
      <section aria-label="Repeat failures">
        <h2>Repairs again and again, last 90 days</h2>
        <table v-if="figures.value.value.repeats.length" class="plain-table">
          <thead>
            <tr>
              <th>Asset</th>
              <th class="amount">Repairs</th>
              <th class="amount">Cost, {{ figures.value.value.currency }}</th>
              <th>Warranty</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="row in figures.value.value.repeats" :key="row.assetId">
              <td>
                <RecordLink class="mono" :record="{ register: 'assets', id: row.assetId }">{{ row.tag }}</RecordLink> {{ row.name }}
              </td>
              <td class="amount">{{ row.repairs }}</td>
              <td class="amount violet">{{ formatMinor(row.costMinor) }}</td>
              <td>{{ row.warrantyUntil ? dayOf(row.warrantyUntil) : '' }}</td>
            </tr>
          </tbody>
        </table>
        <p v-else class="soft">Nothing has broken three times.</p>
      </section>
      <section aria-label="Open work by trade">
        <h2>Open work by trade</h2>
        <table class="plain-table">
          <thead>
            <tr>
              <th>Trade</th>
              <th class="amount">Open</th>
              <th class="amount">Past target</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="row in figures.value.value.byTrade" :key="row.trade">
              <td>{{ row.trade }}</td>
              <td class="amount">{{ row.open }}</td>
              <td class="amount" :class="{ wrong: row.past }">{{ row.past }}</td>
            </tr>
          </tbody>
        </table>
      </section>
      <section v-if="figures.value.value.byOwnState.length" aria-label="Own states">
        <h2>How it stands more exactly</h2>
        <table class="plain-table">
          <thead>
            <tr>
              <th>Own state</th>
              <th>Under</th>
              <th class="amount">Orders</th>
              <th class="amount">Past target</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="row in figures.value.value.byOwnState" :key="row.id">
              <td><OwnMark :mark="row.mark" /> {{ row.name }}</td>
              <td>{{ ORDER_STATE_NAMES[row.under] }}</td>
              <td class="amount">
                <RouterLink :to="`/lists/orders?state=${row.under}&ownstate=${row.id}`">{{ row.orders }}</RouterLink>
              </td>
              <td class="amount" :class="{ wrong: row.past }">{{ row.past }}</td>
            </tr>
          </tbody>
        </table>
      </section>
    </template>
    <div v-else class="bones wait" />
  </div>
</template>

<style scoped src="../kit/page.css"></style>
<style scoped>
.chart {
  height: 280px;
}
</style>
