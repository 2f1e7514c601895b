<script setup lang="ts">
import { computed } from 'vue'
import type { OrderSheet } from '#contract/orders'
import { STINT_KIND_NAMES } from '#core/ledger'
import { HOLD_REASON_NAMES } from '#core/orders'
import { shortTime } from '#web/kit'
import { useOpenSheet } from '#web/sheets'

/** Who is on it and how it goes; the time that was logged. */
defineProps<{ now?: boolean }>()
const { sheet: it } = useOpenSheet<OrderSheet>()
/** Each live visit in a sentence. */
const live = computed(() =>
  it.value.visits
    .filter((visit) => ['planned', 'on_site'].includes(visit.state))
    .map((visit) => {
      const running = it.value.stints.find((stint) => stint.visitId === visit.id && !stint.endAt)
      const doing = running
        ? `${STINT_KIND_NAMES[running.kind].toLowerCase()} since ${shortTime(running.startAt)}`
        : visit.startedAt
          ? `came ${shortTime(visit.startedAt)}, the clock stands still`
          : `planned for ${shortTime(visit.plannedStart)}`
      return { id: visit.id, who: visit.who, doing }
    }),
)
</script>

<template>
  <template v-if="now">
    <p v-if="it.state === 'on_hold'" class="outcome"><strong>On hold.</strong> {{ it.holdReason ? `${HOLD_REASON_NAMES[it.holdReason]}.` : '' }}</p>
    <ul v-if="live.length" class="live" aria-label="Who is on it">
      <li v-for="one in live" :key="one.id">
        <strong>{{ one.who }}</strong> {{ one.doing }}
      </li>
    </ul>
    <p v-else class="soft">Nobody is on it now.</p>
  </template>
  <div v-if="it.stints.length" class="scroll">
    <table class="plain-table">
      <thead>
        <tr>
          <th>Who</th>
          <th>Kind</th>
          <th>From</th>
          <th>To</th>
          <th class="amount">Minutes</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="stint in it.stints" :key="stint.id">
          <td>{{ stint.who }}</td>
          <td>{{ STINT_KIND_NAMES[stint.kind] }}</td>
          <td class="mono">{{ shortTime(stint.startAt) }}</td>
          <td class="mono">{{ stint.endAt ? shortTime(stint.endAt) : 'running' }}</td>
          <td class="amount">{{ stint.minutes ?? '' }}</td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
}
.outcome {
  padding: 6px 10px;
  background: var(--shoal-faint);
  border-radius: 6px;
}
.live {
  margin: 0;
  padding: 0;
  list-style: none;
  display: grid;
  gap: 2px;
}
.live li {
  padding-left: 10px;
  border-left: 3px solid var(--tide);
}
</style>
