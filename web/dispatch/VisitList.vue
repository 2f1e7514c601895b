<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { revokePass } from '#contract/dispatch'
import type { VisitRow } from '#contract/orders'
import { VISIT_KIND_NAMES, VISIT_RESULT_NAMES } from '#core/dispatch'
import type { VisitKind, VisitResult } from '#core/dispatch'
import { call, shortTime } from '#web/kit'

defineProps<{ visits: VisitRow[]; mayRevoke: boolean }>()
const emit = defineEmits<{ revoked: [] }>()
const STATES: Record<string, string> = { planned: 'Planned', on_site: 'On site', ended: 'Ended', recalled: 'Recalled' }

async function revoke(id: number): Promise<void> {
  await call(revokePass, { id })
  emit('revoked')
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
        <tr v-for="visit in visits" :key="visit.id">
          <td>{{ visit.who }}</td>
          <td>{{ VISIT_KIND_NAMES[visit.kind as VisitKind] }}</td>
          <td class="mono">{{ shortTime(visit.plannedStart) }} to {{ shortTime(visit.plannedEnd) }}</td>
          <td>
            {{ STATES[visit.state] }}<template v-if="visit.result">: {{ VISIT_RESULT_NAMES[visit.result as VisitResult] }}</template>
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
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
}
</style>
