<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { NSelect } from 'naive-ui/es/select'
import { ref } from 'vue'
import { handOver, readUnable } from '#contract/approvals'
import type { Unable } from '#contract/approvals'
import { call, useKept } from '#web/kit'

/** Those whom rules and orders wait for in vain, and to whom it goes instead. */
const { shown, keep } = useKept(() => call(readUnable, {}))
const chosen = ref<Record<string, number | null>>({})
const keyOf = (one: Unable) => `${one.siteId}-${one.accountId}`
const able = (one: Unable) => one.able.map(({ id, name }) => ({ value: id, label: name }))
function waiting(one: Unable): string {
  const parts = [
    one.rules ? `${one.rules} ${one.rules === 1 ? 'rule' : 'rules'}` : '',
    one.consents ? `consent for ${one.consents} ${one.consents === 1 ? 'payer' : 'payers'}` : '',
    one.orders.length ? one.orders.map((order) => order.number).join(', ') : '',
  ]
  return parts.filter(Boolean).join('; ')
}
async function give({ siteId, accountId: fromId, name }: Unable, toId: number | null | undefined): Promise<void> {
  if (toId) await keep(() => call(handOver, { siteId, fromId, toId }), `What waited for ${name} is handed over.`)
}
</script>

<template>
  <section v-if="shown.value.value?.unable.length" aria-label="Waiting in vain">
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
        <tr v-for="one in shown.value.value.unable" :key="keyOf(one)">
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
            <NButton size="small" type="primary" :disabled="!chosen[keyOf(one)]" @click="give(one, chosen[keyOf(one)])">Hand over</NButton>
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
