<script setup lang="ts">
import { shortTime } from '#web/kit'
import type { Holding } from './holding'

/** What is held and what speaks against it there; otherwise what is drawn. Apart: it changes with every move, and what is around it does not. */
const props = defineProps<{ holding: Holding; now: string; proposes: boolean }>()
const { held, says } = props.holding
</script>

<template>
  <p class="says" :class="{ on: held }" role="status">{{ says }}</p>
  <p v-if="!held && proposes" class="soft legend">
    Dashed: where the plan would put a job, with a double edge once it is ticked. Struck through: what it would take away from there. Nothing is changed until
    it is made.
  </p>
  <p v-else-if="!held" class="soft legend">
    Light: at work. Outlined: planned, the more urgent the heavier its edge, its target along the foot. Filled: on the job. Dotted between: the way. Hatched:
    away. Dashed along the foot: on call. Drag a visit, or press Space on it and move it by arrows; Enter opens it. It is {{ shortTime(now) }}.
  </p>
  <p v-else class="soft legend">Arrows move it, with Shift by an hour; − and + make it shorter and longer. Enter puts it there, Escape puts it back.</p>
</template>

<style scoped>
/* What is long takes more lines, from the rows above it. */
p {
  flex: none;
}
.says {
  min-height: 24px;
  margin: 6px 0 0;
}
.says.on {
  font-weight: 600;
}
.legend {
  font-size: 12px;
}
</style>
