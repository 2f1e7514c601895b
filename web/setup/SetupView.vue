<script setup lang="ts">
import { editAccount, editHold, editNumbering, editTarget, handOver, readSetup } from '#contract/setup'
import type { SetupSheet } from '#contract/setup'
import { HOLD_REASON_NAMES } from '#core/orders'
import type { HoldReason } from '#core/orders'
import { PRIORITY_NAMES } from '#core/requests'
import { call, ProblemNote, useKeeping, useLoading } from '#web/kit'
import MoneyField from '../orders/MoneyField.vue'
import GrantField from './GrantField.vue'
import SetupTabs from './SetupTabs.vue'
import UnableList from './UnableList.vue'
import UntoldList from './UntoldList.vue'

const setup = useLoading(() => call(readSetup, {}))
void setup.load()
const keeping = useKeeping(setup)

/** A refused change shows again what stands. */
async function keep(change: () => Promise<SetupSheet>, done: string): Promise<void> {
  if (!(await keeping.keep(change, done))) await setup.load()
}
type Account = SetupSheet['accounts'][number]
const saveAccount = (account: Account, change: Partial<Account>) =>
  keep(
    () =>
      call(editAccount, {
        id: account.id,
        version: account.version,
        roles: account.roles,
        approvalLimitMinor: account.approvalLimitMinor,
        disabled: account.disabled,
        ...change,
      }),
    `${account.name} is saved.`,
  )
const numberOf = (event: Event) => Number((event.target as HTMLInputElement).value)
</script>

<template>
  <div class="page">
    <header>
      <h1>Setup</h1>
      <SetupTabs />
    </header>
    <ProblemNote v-if="setup.problem.value" :problem="setup.problem.value" @retry="setup.load" />
    <template v-else-if="setup.value.value">
      <UntoldList />
      <UnableList
        :setup="setup.value.value"
        @hand-over="({ name, ...input }) => keep(() => call(handOver, input), `What waited for ${name} is handed over.`)"
      />
      <section aria-label="Targets">
        <h2>What each priority promises, in minutes</h2>
        <table class="plain-table">
          <thead>
            <tr>
              <th>Site</th>
              <th>Priority</th>
              <th>Clock</th>
              <th>Respond within</th>
              <th>Finish within</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="rule in setup.value.value.targets" :key="rule.id">
              <td class="mono">{{ rule.siteCode }}</td>
              <td>{{ PRIORITY_NAMES[rule.priority] }}</td>
              <td>
                <select
                  class="entry"
                  :value="rule.clock"
                  :aria-label="`Clock of ${rule.priority} at ${rule.siteCode}`"
                  @change="
                    keep(
                      () => call(editTarget, { ...pick(rule), clock: ($event.target as HTMLSelectElement).value as 'working' }),
                      'The target is saved; promises already made stay.',
                    )
                  "
                >
                  <option value="working">working time</option>
                  <option value="continuous">day and night</option>
                </select>
              </td>
              <td>
                <input
                  class="entry mono short"
                  type="number"
                  min="1"
                  :value="rule.responseMinutes"
                  :aria-label="`Response minutes of ${rule.priority} at ${rule.siteCode}`"
                  @change="
                    keep(() => call(editTarget, { ...pick(rule), responseMinutes: numberOf($event) }), 'The target is saved; promises already made stay.')
                  "
                />
              </td>
              <td>
                <input
                  class="entry mono short"
                  type="number"
                  min="1"
                  :value="rule.completionMinutes"
                  :aria-label="`Completion minutes of ${rule.priority} at ${rule.siteCode}`"
                  @change="
                    keep(() => call(editTarget, { ...pick(rule), completionMinutes: numberOf($event) }), 'The target is saved; promises already made stay.')
                  "
                />
              </td>
            </tr>
          </tbody>
        </table>
      </section>
      <section aria-label="Holds">
        <h2>Which holds stop the target clock</h2>
        <p v-if="!setup.value.value.everywhere" class="soft">These hold at every site; an administrator of all sites changes them.</p>
        <label v-for="hold in setup.value.value.holds" :key="hold.reason" class="check"
          ><input
            type="checkbox"
            :disabled="!setup.value.value.everywhere"
            :checked="hold.stopsClock"
            @change="
              keep(
                () => call(editHold, { reason: hold.reason, stopsClock: ($event.target as HTMLInputElement).checked }),
                'Saved; it counts from the next hold on.',
              )
            "
          />
          {{ HOLD_REASON_NAMES[hold.reason as HoldReason] }}</label
        >
      </section>
      <section aria-label="Numbers">
        <h2>Next numbers</h2>
        <table class="plain-table">
          <thead>
            <tr>
              <th>Site</th>
              <th>Series</th>
              <th>Next</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="row in setup.value.value.numberings" :key="row.siteId + row.series">
              <td class="mono">{{ row.siteCode }}</td>
              <td>
                {{ row.series === 'request' ? 'Requests' : 'Orders' }} <span class="mono soft">{{ row.prefix }}-</span>
              </td>
              <td>
                <input
                  class="entry mono short"
                  type="number"
                  :value="row.next"
                  :aria-label="`Next ${row.series} number at ${row.siteCode}`"
                  @change="keep(() => call(editNumbering, { siteId: row.siteId, series: row.series, next: numberOf($event) }), 'The next number is set.')"
                />
              </td>
            </tr>
          </tbody>
        </table>
      </section>
      <section aria-label="People">
        <h2>People who sign in</h2>
        <table class="plain-table">
          <thead>
            <tr>
              <th>Name</th>
              <th>Roles</th>
              <th>Approves to</th>
              <th>Team</th>
              <th>May sign in</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="account in setup.value.value.accounts" :key="account.id">
              <td>
                {{ account.name }}<br /><span class="soft">{{ account.email }}</span>
              </td>
              <td>
                <GrantField
                  :name="account.name"
                  :grants="account.roles"
                  :sites="setup.value.value.sites"
                  :everywhere="setup.value.value.everywhere"
                  @save="saveAccount(account, { roles: $event })"
                />
              </td>
              <td>
                <MoneyField
                  :name="`limit-${account.id}`"
                  label="Limit"
                  :disabled="!account.whole"
                  :value="account.approvalLimitMinor"
                  @save="saveAccount(account, { approvalLimitMinor: $event })"
                />
              </td>
              <td>
                <select
                  class="entry"
                  :value="account.teamId ?? ''"
                  :aria-label="`Team of ${account.name}`"
                  @change="saveAccount(account, { teamId: Number(($event.target as HTMLSelectElement).value) || null })"
                >
                  <option value="">none</option>
                  <option v-for="team in setup.value.value.teams" :key="team.id" :value="team.id">{{ team.name }}</option>
                </select>
              </td>
              <td>
                <label class="role"
                  ><input
                    type="checkbox"
                    :checked="!account.disabled"
                    :disabled="!account.whole"
                    @change="saveAccount(account, { disabled: !($event.target as HTMLInputElement).checked })"
                  />
                  yes</label
                >
              </td>
            </tr>
          </tbody>
        </table>
      </section>
    </template>
    <div v-else class="bones wait" />
  </div>
</template>

<script lang="ts">
/** A rule as its endpoint takes it. */
const pick = (rule: { id: number; clock: 'continuous' | 'working'; responseMinutes: number; completionMinutes: number }) => ({
  id: rule.id,
  clock: rule.clock,
  responseMinutes: rule.responseMinutes,
  completionMinutes: rule.completionMinutes,
})
</script>

<style scoped src="../kit/page.css"></style>
<style scoped>
.check,
.role {
  display: inline-flex;
  align-items: center;
  gap: 6px;
  margin-right: 12px;
  min-height: 28px;
  white-space: nowrap;
}
.short {
  width: 120px;
}
</style>
