<script setup lang="ts">
import { computed } from 'vue'
import { STINT_KIND_NAMES, STINT_KINDS } from '#core/ledger'
import type { StintKind } from '#core/ledger'
import { spell, useNow } from '#web/kit'

/** The clock of a visit: one press starts it, another goes on as another kind of time. */
const props = defineProps<{
  running: { kind: StintKind; startAt: string } | null
  stints: { id: number; kind: StintKind; minutes: number | null }[]
  over: boolean
  busy: boolean
}>()
const emit = defineEmits<{ switch: [StintKind]; stop: [] }>()
const now = useNow()
const since = computed(() => (props.running ? spell((now.value - new Date(props.running.startAt).getTime()) / 60_000) : ''))
const logged = computed(() =>
  STINT_KINDS.map((kind) => ({ kind, minutes: props.stints.filter((one) => one.kind === kind).reduce((sum, one) => sum + (one.minutes ?? 0), 0) })).filter(
    (one) => one.minutes,
  ),
)
</script>

<template>
  <section class="card" aria-label="Clock">
    <h2>Clock</h2>
    <p v-if="running" class="run" role="status">{{ STINT_KIND_NAMES[running.kind] }}, {{ since }}</p>
    <p v-else class="label">{{ over ? 'You have left this job.' : 'The clock is not running.' }}</p>
    <div v-if="!over" class="kinds">
      <button
        v-for="kind in STINT_KINDS"
        :key="kind"
        class="push"
        :class="{ first: !running && kind === 'work', on: running?.kind === kind }"
        type="button"
        :aria-pressed="running?.kind === kind"
        :disabled="busy"
        @click="emit('switch', kind)"
      >
        {{ STINT_KIND_NAMES[kind] }}
      </button>
      <button v-if="running" class="push stop" type="button" :disabled="busy" @click="emit('stop')">Stop the clock</button>
    </div>
    <p v-if="logged.length" class="label">{{ logged.map((one) => `${STINT_KIND_NAMES[one.kind]} ${spell(one.minutes)}`).join(', ') }}</p>
  </section>
</template>

<style scoped>
.run {
  font-size: 20px;
}
.kinds {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}
.on {
  background: var(--shoal);
  border-color: var(--tide);
  font-weight: 700;
}
.stop {
  grid-column: 1 / -1;
}
</style>
