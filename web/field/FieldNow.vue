<script setup lang="ts">
import { RouterLink } from 'vue-router'
import { readCrewNow } from '#contract/field'
import { isChange } from '#core/events'
import { STINT_KIND_NAMES } from '#core/ledger'
import { LoadedPart, RecordLink, shortTime, spell, useNow, useRead } from '#web/kit'

/** Who is where now: on which job since when, what runs over, who has not begun, of whom nothing was heard. */
const now = useNow()
const read = useRead(readCrewNow, {}, { holds: true, touchedBy: ({ kind }) => isChange(kind), every: 60_000 })
const since = (at: string) => spell(Math.max(0, Math.floor((now.value - new Date(at).getTime()) / 60_000)))
</script>

<template>
  <section aria-label="Who is where now">
    <h2>Who is where now</h2>
    <LoadedPart :part="read">
      <ul v-if="read.value.value!.rows.length">
        <li v-for="row in read.value.value!.rows" :key="`${row.technicianId} ${row.name} ${row.job?.orderId}`" :class="{ sign: row.signs.length }">
          <span class="name">
            <RecordLink v-if="row.personId" :record="{ register: 'people', id: row.personId }">{{ row.name }}</RecordLink>
            <template v-else>{{ row.name }} <span class="soft">vendor</span></template>
          </span>
          <span class="where">
            <template v-if="row.job">
              {{ row.kind ? STINT_KIND_NAMES[row.kind] : 'There' }} on
              <RouterLink class="mono" :to="`/desk/field/order/${row.job.orderId}`">{{ row.job.number }}</RouterLink> {{ row.job.summary
              }}<span v-if="row.job.placeCode" class="soft"
                >, <span class="mono">{{ row.job.placeCode }}</span> {{ row.job.placeName }}</span
              >
            </template>
            <template v-else-if="row.next">
              On no job; <RouterLink class="mono" :to="`/desk/dispatch/order/${row.next.orderId}`">{{ row.next.number }}</RouterLink> at
              {{ shortTime(row.next.plannedStart) }}
            </template>
          </span>
          <span class="time mono">{{ row.since ? since(row.since) : '' }}</span>
          <strong v-if="row.signs.length" class="says">{{ row.signs.map(({ says }) => says).join(', ') }}</strong>
        </li>
      </ul>
      <p v-else class="soft">Nobody is on a job.</p>
      <p v-if="read.value.value!.idle" class="soft">{{ read.value.value!.idle }} more on no job, with none to begin.</p>
    </LoadedPart>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 6px;
}
h2 {
  padding-bottom: 4px;
  border-bottom: 1px solid var(--line);
}
ul {
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  display: grid;
  grid-template-columns: 150px minmax(0, 1fr) 90px;
  gap: 2px 10px;
  padding: 5px 0;
}
.time {
  text-align: right;
  white-space: nowrap;
}
.says {
  grid-column: 2;
  color: var(--buoy);
  font-weight: 600;
}
p {
  margin: 0;
}
@media (max-width: 600px) {
  li {
    grid-template-columns: minmax(0, 1fr) auto;
  }
  .where,
  .says {
    grid-column: 1 / -1;
  }
}
</style>
