<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed } from 'vue'
import { RouterLink, useRoute } from 'vue-router'
import { downloadStatementCsv, downloadStatementPdf, readStatement } from '#contract/ledger'
import { counted, formatMinor } from '#core/kit'
import { COST_KIND_NAMES } from '#core/ledger'
import type { CostKind } from '#core/ledger'
import { address, ProblemNote, shortTime, useRead } from '#web/kit'

const route = useRoute()
const which = computed(() => ({ payerId: Number(route.params.payerId), month: String(route.params.month) }))
const statement = useRead(readStatement, which)
const opened = computed(() => Number(route.query.job ?? 0))
</script>

<template>
  <div class="page">
    <ProblemNote v-if="statement.problem.value" :problem="statement.problem.value" @retry="statement.load" />
    <template v-else-if="statement.value.value">
      <header>
        <div class="title">
          <p><RouterLink to="/ledger">Ledger</RouterLink></p>
          <h1>{{ statement.value.value.number }}</h1>
          <p>{{ statement.value.value.payerCode }} {{ statement.value.value.payerName }}, {{ statement.value.value.site }}</p>
        </div>
        <p class="sum">
          <span class="soft">Total, {{ statement.value.value.currency }}</span
          ><strong class="mono violet">{{ formatMinor(statement.value.value.grossMinor) }}</strong
          ><span class="soft mono">{{ formatMinor(statement.value.value.netMinor) }} + {{ formatMinor(statement.value.value.taxMinor) }} tax</span>
        </p>
        <NButton tag="a" :href="address(downloadStatementPdf, which)" download>PDF</NButton>
        <NButton tag="a" :href="address(downloadStatementCsv, which)" download>CSV</NButton>
      </header>
      <section aria-label="Jobs">
        <h2>{{ counted(statement.value.value.jobs, 'job') }}. Open one to see its hours, parts and bill lines.</h2>
        <details v-for="job in statement.value.value.jobList" :key="job.chargeId" :open="job.chargeId === opened">
          <summary>
            <span class="mono">{{ job.orderNumber }}</span><span class="grow"
              ><strong v-if="job.reversal">Reversal: </strong>{{ job.summary
              }}<span class="soft"
                >, {{ job.place }}, {{ shortTime(job.postedAt) }}<template v-if="job.shareBp < 10000">, {{ job.shareBp / 100 }} % share</template></span
              ></span
            ><span class="mono violet">{{ formatMinor(job.grossMinor) }}</span>
          </summary>
          <p v-if="job.noteForPayer" class="note">{{ job.noteForPayer }}</p>
          <table class="plain-table">
            <thead>
              <tr>
                <th>Kind</th>
                <th>What</th>
                <th class="amount">Quantity</th>
                <th class="amount">Each</th>
                <th class="amount">Your cost</th>
                <th class="amount">Markup</th>
                <th class="amount">Net</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="line in job.lines" :key="line.kind + line.sourceId">
                <td>{{ COST_KIND_NAMES[line.kind as CostKind] }}</td>
                <td>{{ line.description }}</td>
                <td class="amount">{{ line.quantity }} {{ line.unit }}</td>
                <td class="amount">{{ formatMinor(line.unitCostMinor) }}</td>
                <td class="amount">{{ formatMinor(line.costMinor) }}</td>
                <td class="amount">{{ line.markupBp / 100 }} %</td>
                <td class="amount">{{ formatMinor(line.netMinor) }}</td>
              </tr>
              <tr>
                <td colspan="6">
                  Net {{ formatMinor(job.netMinor) }}, tax {{ job.taxBp / 100 }} % is {{ formatMinor(job.taxMinor) }}.
                  <RouterLink :to="`/desk/charges/order/${job.orderId}`">Open the order</RouterLink>
                </td>
                <td class="amount violet">{{ formatMinor(job.grossMinor) }}</td>
              </tr>
            </tbody>
          </table>
        </details>
      </section>
    </template>
    <div v-else class="bones wait" />
  </div>
</template>

<style scoped src="../kit/page.css"></style>
<style scoped>
.title {
  margin-right: auto;
}
.sum {
  display: grid;
  justify-items: end;
}
.sum strong {
  font-size: 20px;
}
summary {
  display: flex;
  gap: 14px;
  padding: 8px 4px;
  border-bottom: 1px solid var(--line);
  cursor: pointer;
  align-items: baseline;
}
summary:hover {
  background: var(--shoal-faint);
}
.grow {
  flex: 1;
}
.note {
  padding: 6px 12px;
  border-left: 3px solid var(--line);
  margin: 6px 0;
}
details[open] {
  padding-bottom: 12px;
}
</style>
