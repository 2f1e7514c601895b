<script setup lang="ts">
import type { Caller } from '#contract/requests'
import { ORDER_STATE_NAMES } from '#core/orders'
import { REQUEST_STATE_NAMES } from '#core/requests'
import { RowButton, shortTime } from '#web/kit'

/** Beside the call: what is open at that place already, and what is known of who is on the line. */
defineProps<{ caller: Caller | null; twins: { id: number; number: string; summary: string; receivedAt: string }[]; joinedId: number | null }>()
const emit = defineEmits<{ join: [number] }>()
const STATES: Record<string, string> = { ...ORDER_STATE_NAMES, ...REQUEST_STATE_NAMES }
</script>

<template>
  <aside class="panel" aria-label="What is known">
    <section aria-label="Open there already">
      <h2>Open there already</h2>
      <RowButton v-for="(one, index) in twins" :key="one.id" class="twin plain" :aria-pressed="joinedId === one.id" @click="emit('join', one.id)">
        <span class="mono">{{ one.number }}</span> <kbd>Alt {{ index + 1 }}</kbd
        ><br />{{ one.summary }} <span class="soft">{{ shortTime(one.receivedAt) }}</span>
      </RowButton>
      <p v-if="twins.length" class="soft">The key joins this call to it.</p>
      <p v-else class="soft">Nothing is open there.</p>
    </section>
    <template v-if="caller">
      <section aria-label="The caller waits for">
        <h2>{{ caller.name }} waits for</h2>
        <p v-if="caller.payer" class="soft">{{ caller.payer.label }}</p>
        <p v-for="one in caller.open" :key="one.id">
          <span class="mono">{{ one.number }}</span> {{ one.summary }} <span class="soft">{{ STATES[one.state] ?? one.state }}</span>
        </p>
        <p v-if="!caller.open.length" class="soft">Nothing.</p>
      </section>
      <section aria-label="Last jobs">
        <h2>Last jobs</h2>
        <p v-for="one in caller.lastJobs" :key="one.id">
          <span class="mono">{{ one.number }}</span> {{ one.summary }} <span class="soft">{{ shortTime(one.finishedAt) }}, {{ one.outcome }}</span>
        </p>
        <p v-if="!caller.lastJobs.length" class="soft">None yet.</p>
      </section>
    </template>
  </aside>
</template>

<style scoped>
.panel {
  display: grid;
  gap: 14px;
  align-content: start;
  font-size: 13px;
}
section {
  display: grid;
  gap: 6px;
}
.twin {
  width: 100%;
  padding: 6px 8px;
  border: 1px solid var(--line);
  border-radius: 6px;
}
.twin[aria-pressed='true'] {
  background: var(--shoal);
  border-color: var(--tide);
}
</style>
