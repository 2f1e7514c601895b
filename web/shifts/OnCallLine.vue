<script setup lang="ts">
import { listOnCall } from '#contract/shifts'
import { RecordLink, shortTime, useRead } from '#web/kit'

/** Who is on call now, and how to reach them. */
const props = defineProps<{ siteId: number; /** Whether something stands behind it. */ more: boolean }>()
const read = useRead(listOnCall, () => ({ siteId: props.siteId }), {
  holds: true,
  touchedBy: ({ kind }) => kind === 'rota.keep' || kind === 'people.crew',
  every: 300_000,
})
</script>

<template>
  <p v-if="read.value.value?.rows.length || more" class="oncall">
    <span v-if="read.value.value?.rows.length" class="soft">On call now:</span>
    <span v-for="one in read.value.value?.rows ?? []" :key="one.teamId">
      <RecordLink :record="{ register: 'people', id: one.personId }">{{ one.name }}</RecordLink>{{ ' '
      }}<span class="soft">{{ one.team }}, until {{ shortTime(one.until) }}</span> {{ ' '
      }}<a v-if="one.phone" class="mono" :href="`tel:${one.phone.replace(/ /g, '')}`">{{ one.phone }}</a>
      <strong v-if="one.away" class="wrong"> but on leave</strong>
    </span>
    <slot />
  </p>
</template>

<style scoped>
.oncall {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 16px;
  margin: 0;
  align-items: baseline;
}
.wrong {
  color: var(--buoy);
}
</style>
