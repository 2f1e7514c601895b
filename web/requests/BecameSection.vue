<script setup lang="ts">
import { computed } from 'vue'
import { RouterLink } from 'vue-router'
import type { RequestSheet } from '#contract/requests'
import { useSession } from '#web/kit'
import { useOpenSheet } from '#web/sheets'

/** What became of a request. */
const { sheet: it } = useOpenSheet<RequestSheet>()
const session = useSession()
const DECIDED: Record<string, string> = {
  accept: 'You accepted it',
  another: 'You made another order of it',
  ask: 'You asked the reporter',
  decline: 'You declined it',
  join: 'You joined it',
}
const mayTakeBack = computed(() => session.can('requests.triage') && it.value.outcome && !it.value.outcome.reasons.length)
const whyNotBack = computed(() => it.value.outcome?.reasons.find((reason) => reason.code !== 'not_yours')?.sentence)
</script>

<template>
  <p v-for="order in it.orders" :key="order.id" class="outcome">
    Became
    <RouterLink :to="`/desk/planning/order/${order.id}`"
      ><span class="mono">{{ order.number }}</span> {{ order.summary }}</RouterLink
    >
  </p>
  <p v-if="it.joinedTo" class="outcome">
    Joined to <RouterLink :to="`/desk/triage/request/${it.joinedTo.id}`" class="mono">{{ it.joinedTo.number }}</RouterLink>
  </p>
  <p v-if="it.declineReason" class="outcome">Declined: {{ it.declineReason }}</p>
  <p v-if="mayTakeBack" class="soft">
    {{ DECIDED[it.outcome!.move] }}{{ it.outcome!.order ? `: ${it.outcome!.order}` : '' }}. You can take that back until somebody else acts on it.
  </p>
  <p v-else-if="it.outcome && whyNotBack" class="soft">It cannot be taken back any more: {{ whyNotBack }}</p>
</template>

<style scoped>
.outcome {
  padding: 6px 10px;
  background: var(--shoal-faint);
  border-radius: 6px;
}
</style>
