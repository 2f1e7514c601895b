<script setup lang="ts">
import { computed } from 'vue'
import { RouterLink } from 'vue-router'
import { readBoardPerson } from '#contract/board'
import { isChange } from '#core/events'
import { dayOf, LoadedPart, shortTime, spell, useRead, writtenDay } from '#web/kit'

/** Somebody before more is given to them: their week in hours, where they are, what they may do and which assets they know. */
const props = defineProps<{ siteId: number; technicianId: number; day: string }>()
const read = useRead(readBoardPerson, () => ({ siteId: props.siteId, technicianId: props.technicianId, day: props.day }), {
  holds: true,
  touchedBy: ({ kind }) => isChange(kind),
})
const it = computed(() => read.value.value!)
</script>

<template>
  <LoadedPart :part="read">
    <dl>
      <dt>This week</dt>
      <dd>
        {{ spell(it.week.plannedMinutes) }} planned of {{ spell(it.week.shiftMinutes) }}, {{ spell(it.week.promisedMinutes) }} of it promised;
        <strong>{{ spell(it.week.freeMinutes) }} free</strong>
      </dd>
      <dt>Now</dt>
      <dd v-if="it.at">
        <RouterLink :to="`/desk/field/order/${it.at.orderId}`">{{ it.at.number }}</RouterLink>{{ it.at.place ? `, ${it.at.place}` : '' }}, since
        {{ shortTime(it.at.since) }}
      </dd>
      <dd v-else class="soft">At no job.</dd>
      <dt>May do</dt>
      <dd v-if="it.skills.length">
        <span v-for="skill in it.skills" :key="skill.name" class="skill" :class="{ wrong: skill.over }"
          >{{ skill.name }}{{ skill.until ? `, ${skill.over ? 'ended' : 'until'} ${writtenDay(skill.until)}` : '' }}</span
        >
      </dd>
      <dd v-else class="soft">Nothing besides their trades.</dd>
      <dt>Knows</dt>
      <dd v-if="it.knows.length">
        <span v-for="asset in it.knows" :key="asset.assetId" class="skill"
          ><RouterLink :to="`/registers/assets/${asset.assetId}`"
            ><span class="mono">{{ asset.tag }}</span> {{ asset.name }}</RouterLink
          >
          <span class="soft">{{ asset.times }} ×, last {{ dayOf(asset.last) }}</span></span
        >
      </dd>
      <dd v-else class="soft">Worked on no asset within a year.</dd>
    </dl>
  </LoadedPart>
</template>

<style scoped>
dl {
  max-width: 420px;
  margin: 0;
  display: grid;
  grid-template-columns: 72px minmax(0, 1fr);
  gap: 6px 8px;
}
dt {
  color: var(--ink-soft);
}
dd {
  margin: 0;
}
.skill {
  display: block;
}
</style>
