<script setup lang="ts">
import { RouterLink } from 'vue-router'
import type { JobRow } from '#contract/field'
import { VISIT_KIND_NAMES } from '#core/dispatch'
import type { VisitKind } from '#core/dispatch'
import { PriorityBar, shortTime } from '#web/kit'

/** Jobs in the order of the plan, one card each. */
defineProps<{ jobs: JobRow[] }>()
const STATES: Record<string, string> = { planned: 'Planned', on_site: 'On site', ended: 'Left' }
</script>

<template>
  <ol class="jobs">
    <li v-for="job in jobs" :key="job.visitId">
      <RouterLink class="card job" :class="{ now: job.visitState === 'on_site', over: job.visitState === 'ended' }" :to="`/rounds/${job.visitId}`">
        <span class="line"
          ><span class="mono">{{ shortTime(job.plannedStart) }}</span
          ><PriorityBar :priority="job.priority" /><span class="label">{{ STATES[job.visitState] }}</span></span
        >
        <strong>{{ job.summary }}</strong>
        <span
          ><span class="mono label">{{ job.placeCode }}</span> {{ job.placeName }}</span
        >
        <span class="label"
          ><span class="mono">{{ job.number }}</span
          >, {{ VISIT_KIND_NAMES[job.kind as VisitKind].toLowerCase() }}<template v-if="job.bring">, {{ job.bring }} to bring</template></span
        >
      </RouterLink>
    </li>
  </ol>
</template>

<style scoped>
.jobs {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 10px;
}
.job {
  color: var(--ink);
  text-decoration: none;
  gap: 3px;
  border-left: 6px solid var(--line-strong);
}
.now {
  border-left-color: var(--tide);
  background: var(--shoal-faint);
}
.over {
  opacity: 0.75;
}
.line {
  display: flex;
  gap: 12px;
  align-items: center;
}
</style>
