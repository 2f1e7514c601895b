<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { NSelect } from 'naive-ui/es/select'
import { ref } from 'vue'
import type { SetupSheet, Unable } from '#contract/setup'
import { mayAt } from '#core/people'

/** Those whom rules and orders wait for in vain, and to whom it goes instead. */
const props = defineProps<{ setup: SetupSheet }>()
const emit = defineEmits<{ handOver: [{ siteId: number; fromId: number; toId: number; name: string }] }>()
const chosen = ref<Record<string, number | null>>({})
const keyOf = (one: Unable) => `${one.siteId}-${one.accountId}`
const able = (one: Unable) =>
  props.setup.accounts
    .filter((account) => !account.disabled && mayAt(account.roles, 'orders.approve', one.siteId))
    .map((account) => ({ value: account.id, label: account.name }))
function waiting(one: Unable): string {
  const parts = [
    one.rules ? `${one.rules} ${one.rules === 1 ? 'rule' : 'rules'}` : '',
    one.consents ? `consent for ${one.consents} ${one.consents === 1 ? 'payer' : 'payers'}` : '',
    one.orders.length ? one.orders.map((order) => order.number).join(', ') : '',
  ]
  return parts.filter(Boolean).join('; ')
}
function give(one: Unable): void {
  const toId = chosen.value[keyOf(one)]
  if (toId) emit('handOver', { siteId: one.siteId, fromId: one.accountId, toId, name: one.name })
}
</script>

<template>
  <section v-if="setup.unable.length" aria-label="Waiting in vain">
    <h2>Waiting for somebody who cannot decide</h2>
    <p class="soft">Their account is closed, or they approve nothing at the site any more. Until it is handed over, nobody decides.</p>
    <table class="plain-table">
      <thead>
        <tr>
          <th>Site</th>
          <th>Person</th>
          <th>What waits</th>
          <th>Hand over to</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="one in setup.unable" :key="keyOf(one)">
          <td class="mono">{{ one.siteCode }}</td>
          <td>{{ one.name }}</td>
          <td>{{ waiting(one) }}</td>
          <td class="give">
            <NSelect
              v-model:value="chosen[keyOf(one)]"
              size="small"
              filterable
              placeholder="An approver of the site"
              :options="able(one)"
              :input-props="{ 'aria-label': `Who decides for ${one.name} at ${one.siteCode}` }"
            />
            <NButton size="small" type="primary" :disabled="!chosen[keyOf(one)]" @click="give(one)">Hand over</NButton>
          </td>
        </tr>
      </tbody>
    </table>
  </section>
</template>

<style scoped src="../kit/page.css"></style>
<style scoped>
.give {
  display: flex;
  gap: 6px;
  min-width: 300px;
}
</style>
