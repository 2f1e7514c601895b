<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { defineAsyncComponent } from 'vue'
import { revokePass } from '#contract/dispatch'
import type { VisitRow } from '#contract/orders'
import { VISIT_KIND_NAMES, VISIT_RESULT_NAMES } from '#core/dispatch'
import type { VisitKind, VisitResult } from '#core/dispatch'
import { call, CallProblem, shortTime, useUndo } from '#web/kit'
import { answerSays } from './answers'

/** Loaded where a vendor proposes something: the first view of the Desk knows nothing of it. */
const ProposalBox = defineAsyncComponent(() => import('./ProposalBox.vue'))
defineProps<{ visits: VisitRow[]; siteId: number; mayRevoke: boolean }>()
const emit = defineEmits<{ changed: [] }>()
const STATES: Record<string, string> = { planned: 'Planned', on_site: 'On site', ended: 'Ended', recalled: 'Recalled' }

const broughtSays = ({ brought }: VisitRow) => brought.map(({ name, quantity, unit }) => `${Number(quantity)} ${unit} ${name}`).join(', ')

const said = useUndo()
async function revoke(id: number): Promise<void> {
  try {
    await call(revokePass, { id })
    emit('changed')
  } catch (error) {
    if (!(error instanceof CallProblem)) throw error
    said.say(`${error.message} The link still works.`, undefined, true)
  }
}
</script>

<template>
  <div v-if="visits.length" class="scroll">
    <table class="plain-table">
      <thead>
        <tr>
          <th>Who</th>
          <th>Kind</th>
          <th>Planned</th>
          <th>State</th>
          <th>Pass</th>
        </tr>
      </thead>
      <tbody>
        <template v-for="visit in visits" :key="visit.id">
          <tr>
            <td>{{ visit.who }}</td>
            <td>{{ VISIT_KIND_NAMES[visit.kind as VisitKind] }}</td>
            <td class="mono">{{ shortTime(visit.plannedStart) }} to {{ shortTime(visit.plannedEnd) }}</td>
            <td>
              {{ STATES[visit.state]
              }}<span v-if="answerSays(visit)" :class="{ wrong: visit.silent }" :title="visit.answerNote ?? undefined">, {{ answerSays(visit) }}</span
              ><template v-if="visit.result">: {{ VISIT_RESULT_NAMES[visit.result as VisitResult] }}</template>
            </td>
            <td>
              <template v-if="visit.pass">
                <span v-if="visit.pass.revokedAt" class="soft">taken back</span>
                <template v-else
                  >until {{ shortTime(visit.pass.expiresAt) }}
                  <NButton v-if="mayRevoke" text type="primary" class="link" @click="revoke(visit.pass.id)">Take back</NButton></template
                >
              </template>
            </td>
          </tr>
          <tr v-if="visit.brought.length">
            <td colspan="5" class="brought">Brought along: {{ broughtSays(visit) }}</td>
          </tr>
          <tr v-if="mayRevoke && visit.proposed && visit.state === 'planned'">
            <td colspan="5">
              <ProposalBox :site-id="siteId" :visit="visit" :who="visit.who" :proposed="visit.proposed" :note="visit.answerNote" @done="emit('changed')" />
            </td>
          </tr>
        </template>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
}
.brought {
  overflow-wrap: anywhere;
}
.wrong {
  color: var(--buoy);
}
</style>
