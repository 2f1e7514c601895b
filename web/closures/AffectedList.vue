<script setup lang="ts">
import type { AffectedBooking } from '#contract/closures'
import { spanTime } from '#web/kit'

/** Bookings that fall into a time a space is out of use: what, whose, when. */
defineProps<{ bookings: AffectedBooking[] }>()
</script>

<template>
  <ul>
    <li v-for="one in bookings" :key="one.key">
      <strong>{{ one.what ?? 'Booked' }}</strong><template v-if="one.who"
        >, <a v-if="one.email" :href="`mailto:${one.email}`">{{ one.who }}</a><template v-else>{{ one.who }}</template></template
      >, <span class="mono">{{ spanTime(one.from, one.until) }}</span><span v-if="one.since" class="problem">, booked since</span>
    </li>
  </ul>
</template>

<style scoped>
ul {
  margin: 0;
  padding-left: 18px;
}
li {
  overflow-wrap: anywhere;
}
</style>
