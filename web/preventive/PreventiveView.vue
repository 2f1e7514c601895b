<script setup lang="ts">
import { RouterLink } from 'vue-router'
import { listDues } from '#contract/preventive'
import { dayOf, ProblemNote, useRead } from '#web/kit'

const dues = useRead(listDues, {})
const STATES = { done: 'Done', ordered: 'Ordered', ahead: 'Ahead', late: 'Late' }
</script>

<template>
  <div class="page">
    <header>
      <h1>Preventive</h1>
      <p class="soft">Work due from 30 days ago to 60 days ahead</p>
    </header>
    <ProblemNote v-if="dues.problem.value" :problem="dues.problem.value" @retry="dues.load" />
    <section v-else-if="dues.value.value" aria-label="Dues">
      <table v-if="dues.value.value.rows.length" class="plain-table">
        <thead>
          <tr>
            <th>Due</th>
            <th>Plan</th>
            <th>Asset</th>
            <th>State</th>
            <th>Order</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="due in dues.value.value.rows" :key="due.id">
            <td class="mono">{{ dayOf(due.dueOn) }}</td>
            <td>{{ due.plan }}</td>
            <td class="mono">{{ due.asset }}</td>
            <td :class="{ wrong: due.state === 'late' }">{{ STATES[due.state] }}</td>
            <td>
              <RouterLink v-if="due.orderId" class="mono" :to="`/desk/planning/order/${due.orderId}`">{{ due.orderNumber }}</RouterLink>
            </td>
          </tr>
        </tbody>
      </table>
      <p v-else class="soft">No preventive work is due around now.</p>
    </section>
    <div v-else class="bones wait" />
  </div>
</template>

<style scoped src="../kit/page.css"></style>
