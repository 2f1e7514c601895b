<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, ref } from 'vue'
import { isForgotten } from '#core/field'
import { STINT_KIND_NAMES, STINT_KINDS } from '#core/ledger'
import type { StintKind } from '#core/ledger'
import { TextEntry, fromLocalField, longTime, spell, toLocalField, useNow } from '#web/kit'

/** The clock of a visit: one press starts it, another goes on as another kind of time. */
const props = defineProps<{
  running: { kind: StintKind; startAt: string } | null
  stints: { id: number; kind: StintKind; minutes: number | null }[]
  over: boolean
  busy: boolean
}>()
const emit = defineEmits<{ switch: [StintKind]; stop: [stoppedAt?: string] }>()
const now = useNow()
const since = computed(() => (props.running ? spell((now.value - new Date(props.running.startAt).getTime()) / 60_000) : ''))
/** A clock that ran through the night was forgotten: it is stopped where its person says. */
const forgotten = computed(() => props.running !== null && isForgotten(new Date(props.running.startAt), new Date(now.value)))
const stopped = ref('')
const wrong = ref('')
function stopThen(): void {
  const typed = /^([01]?\d|2[0-3])[:.]?([0-5]\d)$/.exec(stopped.value.trim())
  wrong.value = typed ? '' : 'Write a time like 16:30.'
  if (!typed) return
  const start = new Date(props.running!.startAt)
  const [day] = toLocalField(start).split('T')
  const at = fromLocalField(`${day}T${typed[1]!.padStart(2, '0')}:${typed[2]}`)
  // A time before it began is of the day after.
  emit('stop', (at < start ? new Date(at.getTime() + 86_400_000) : at).toISOString())
}
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
    <form v-if="forgotten" class="kinds" @submit.prevent="stopThen">
      <TextEntry
        id="clock-stopped"
        v-model="stopped"
        :label="`It has run since ${longTime(running!.startAt)}. When did you stop?`"
        mono
        :problem="wrong"
        class="stop"
        inputmode="numeric"
        placeholder="16:30"
      />
      <NButton type="primary" class="stop" attr-type="submit" :disabled="busy">Stop it there</NButton>
    </form>
    <div v-else-if="!over" class="kinds">
      <NButton
        v-for="kind in STINT_KINDS"
        :key="kind"
        :type="!running && kind === 'work' ? 'primary' : 'default'"
        :class="{ on: running?.kind === kind }"
        :aria-pressed="running?.kind === kind"
        :disabled="busy"
        @click="emit('switch', kind)"
      >
        {{ STINT_KIND_NAMES[kind] }}
      </NButton>
      <NButton v-if="running" class="stop" :disabled="busy" @click="emit('stop')">Stop the clock</NButton>
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
