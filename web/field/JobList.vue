<script setup lang="ts">
import { RouterLink } from 'vue-router'
import type { JobRow } from '#contract/field'
import { VISIT_KIND_NAMES } from '#core/dispatch'
import type { VisitKind } from '#core/dispatch'
import { PriorityBar, shortTime, spanTime, spell } from '#web/kit'

/** Jobs in the order of the plan, one card each. */
defineProps<{
  jobs: JobRow[]
  /** What is new about one to whoever looks: an empty list for all of it. */
  newsFor?: (job: JobRow) => string[] | null
}>()
const saysNews = (news: string[]) => (news.length ? `Changed: ${news.join(', ')}` : 'New')
const STATES: Record<string, string> = { planned: 'Planned', on_site: 'On site', ended: 'Left' }
</script>

<template>
  <ol class="jobs">
    <li v-for="job in jobs" :key="job.visitId">
      <RouterLink class="card job" :class="{ now: job.visitState === 'on_site', over: job.visitState === 'ended' }" :to="`/rounds/${job.visitId}`">
        <span class="line"
          ><span class="mono">{{ shortTime(job.plannedStart) }}</span
          ><PriorityBar :priority="job.priority" /><span class="label">{{ STATES[job.visitState] }}</span
          ><strong v-if="newsFor?.(job)" class="news">{{ saysNews(newsFor(job)!) }}</strong></span
        >
        <strong>{{ job.summary }}</strong>
        <span
          ><span class="mono label">{{ job.placeCode }}</span> {{ job.placeName }}<span v-if="job.within" class="label">, {{ job.within }}</span></span
        >
        <span v-if="job.window" class="label"
          >Agreed <span class="mono">{{ spanTime(job.window.from, job.window.until) }}</span></span
        >
        <span class="label"
          ><span class="mono">{{ job.number }}</span
          >, {{ VISIT_KIND_NAMES[job.kind as VisitKind].toLowerCase() }}<template v-if="job.bring">, {{ job.bring }} to bring</template
          ><template v-if="job.wayMinutes">, {{ spell(job.wayMinutes) }} to get there</template></span
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
.news {
  margin-left: auto;
  padding: 0 8px;
  border-radius: 6px;
  background: var(--deep);
  color: var(--on-deep);
  font-size: 13px;
}
.line {
  flex-wrap: wrap;
  display: flex;
  gap: 12px;
  align-items: center;
}
</style>
