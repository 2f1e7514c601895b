<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { NSelect } from 'naive-ui/es/select'
import { NSwitch } from 'naive-ui/es/switch'
import { ref } from 'vue'
import { editAccount, readAccounts } from '#contract/people'
import type { AccountRow } from '#contract/people'
import { call, DialogBox, LoadedPart, useKept, MoneyField } from '#web/kit'
import { endDevice, listDevices } from '#contract/devices'
import { DeviceList } from '#web/devices'
import GrantField from './GrantField.vue'

/** Everybody who signs in: their roles at each site, how much they approve, their team, and whether they may. */
const { shown, keep } = useKept(() => call(readAccounts, {}))
/** Whose devices are looked at. */
const looked = ref<AccountRow | null>(null)
const save = (account: AccountRow, change: Partial<AccountRow>) => {
  const { id, version, roles, approvalLimitMinor, disabled } = account
  return keep(() => call(editAccount, { id, version, roles, approvalLimitMinor, disabled, ...change }), `${account.name} is saved.`)
}
</script>

<template>
  <section aria-label="People">
    <h2>People who sign in</h2>
    <LoadedPart v-slot="{ value }" :part="shown">
      <table class="plain-table">
        <thead>
          <tr>
            <th>Name</th>
            <th>Roles</th>
            <th>Approves to</th>
            <th>Team</th>
            <th>May sign in</th>
            <th></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="account in value.accounts" :key="account.id">
            <td>
              {{ account.name }}<br /><span class="soft">{{ account.email }}</span>
            </td>
            <td>
              <GrantField
                :name="account.name"
                :grants="account.roles"
                :sites="value.sites"
                :everywhere="value.everywhere"
                @save="save(account, { roles: $event })"
              />
            </td>
            <td>
              <MoneyField
                :name="`limit-${account.id}`"
                label="Limit"
                :disabled="!account.whole"
                :value="account.approvalLimitMinor"
                @save="save(account, { approvalLimitMinor: $event })"
              />
            </td>
            <td>
              <NSelect
                class="team"
                size="small"
                clearable
                filterable
                placeholder="none"
                :value="account.teamId"
                :options="value.teams.map((team) => ({ value: team.id, label: team.name }))"
                :input-props="{ 'aria-label': `Team of ${account.name}` }"
                @update:value="save(account, { teamId: $event })"
              />
            </td>
            <td>
              <NSwitch
                :value="!account.disabled"
                :disabled="!account.whole"
                :aria-label="`${account.name} may sign in`"
                @update:value="(on: boolean) => save(account, { disabled: !on })"
              />
            </td>
            <td>
              <NButton v-if="account.whole" size="small" :aria-label="`Devices of ${account.name}`" @click="looked = account">Devices</NButton>
            </td>
          </tr>
        </tbody>
      </table>
    </LoadedPart>
    <DialogBox v-if="looked" :title="`Devices of ${looked.name}`" @close="looked = null">
      <h2>Devices of {{ looked.name }}</h2>
      <DeviceList :read="() => call(listDevices, { accountId: looked!.id })" :end="(id) => call(endDevice, { accountId: looked!.id, id })" />
      <NButton data-first @click="looked = null">Close</NButton>
    </DialogBox>
  </section>
</template>

<style scoped src="../kit/page.css"></style>
<style scoped>
.team {
  width: 180px;
}
</style>
