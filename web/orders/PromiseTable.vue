<script setup lang="ts">
import { NCheckbox } from 'naive-ui/es/checkbox'
import { NSelect } from 'naive-ui/es/select'
import { editHold, editTarget, readPromises } from '#contract/orders'
import type { PromisesSheet } from '#contract/orders'
import { HOLD_REASON_NAMES } from '#core/orders'
import { PRIORITY_NAMES } from '#core/requests'
import { call, LoadedPart, NumberField, useKept } from '#web/kit'

/** What each priority promises at each site, and which holds stop the clock of it. */
type Target = PromisesSheet['targets'][number]
const { shown, keep } = useKept(() => call(readPromises, {}))
const CLOCKS = [
  { value: 'working', label: 'working time' },
  { value: 'continuous', label: 'day and night' },
]
const save = ({ id, clock, responseMinutes, completionMinutes }: Target, change: Partial<Target>) =>
  keep(() => call(editTarget, { id, clock, responseMinutes, completionMinutes, ...change }), 'The target is saved; promises already made stay.')
</script>

<template>
  <LoadedPart v-slot="{ value }" :part="shown">
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
          <tr v-for="rule in value.targets" :key="rule.id">
            <td class="mono">{{ rule.siteCode }}</td>
            <td>{{ PRIORITY_NAMES[rule.priority] }}</td>
            <td>
              <NSelect
                class="clock"
                size="small"
                :value="rule.clock"
                :options="CLOCKS"
                :input-props="{ 'aria-label': `Clock of ${PRIORITY_NAMES[rule.priority]} at ${rule.siteCode}` }"
                @update:value="save(rule, { clock: $event })"
              />
            </td>
            <td v-for="[field, name] in [['responseMinutes', 'Response'] as const, ['completionMinutes', 'Completion'] as const]" :key="field">
              <NumberField
                :value="rule[field]"
                :least="1"
                :name="`${name} minutes of ${PRIORITY_NAMES[rule.priority]} at ${rule.siteCode}`"
                :keep="(minutes) => save(rule, { [field]: minutes })"
              />
            </td>
          </tr>
        </tbody>
      </table>
    </section>
    <section aria-label="Holds">
      <h2>Which holds stop the target clock</h2>
      <p v-if="!value.everywhere" class="soft">These hold at every site; an administrator of all sites changes them.</p>
      <div class="holds">
        <NCheckbox
          v-for="hold in value.holds"
          :key="hold.reason"
          :disabled="!value.everywhere"
          :checked="hold.stopsClock"
          @update:checked="(on: boolean) => keep(() => call(editHold, { reason: hold.reason, stopsClock: on }), 'Saved; it counts from the next hold on.')"
          >{{ HOLD_REASON_NAMES[hold.reason] }}</NCheckbox
        >
      </div>
    </section>
  </LoadedPart>
</template>

<style scoped src="../kit/page.css"></style>
<style scoped>
td {
  vertical-align: middle;
}
.clock {
  width: 150px;
}
.holds {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
}
</style>
