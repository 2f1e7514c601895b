<script setup lang="ts">
import { computed, onUnmounted, watch } from 'vue'
import { RouterLink } from 'vue-router'
import { readStation } from '#contract/insight'
import { STATION_NAMES } from '#core/orders'
import type { Station } from '#core/orders'
import { FieldNow } from '#web/field'
import { ProblemNote, shortTime, TargetGauge, useRead } from '#web/kit'
import { eventSays } from '#web/sheets'
import { lastLooks } from './lastLook'

/** A station with nothing open: what passes its target next and who it waits for, and what others changed meanwhile. */
const props = defineProps<{ station: Station }>()
const looks = lastLooks()
const since = computed(() => looks.since(props.station))
const read = useRead(readStation, () => ({ station: props.station, since: since.value }), { touchedBy: () => true, holds: true })
const news = computed(() => read.value.value)
/** Finished work passes no target any more. */
const late = computed(() => !['wrapup', 'charges'].includes(props.station))
watch(
  () => props.station,
  (_, before) => looks.looked(before),
)
onUnmounted(() => looks.looked(props.station))
</script>

<template>
  <div class="home">
    <h1>What comes next in {{ STATION_NAMES[station] }}</h1>
    <p class="soft">Choose a line in the queue, or press <kbd class="mono">↓</kbd>. <kbd class="mono">?</kbd> shows the keys.</p>
    <ProblemNote v-if="read.problem.value && !news" :problem="read.problem.value" @retry="read.load" />
    <div v-else-if="!news" class="waiting" role="status" aria-label="Loading"><span v-for="n in 4" :key="n" class="bones" /></div>
    <template v-else>
      <FieldNow v-if="station === 'field'" />
      <section :aria-label="late ? 'Late next' : 'Waiting longest'">
        <h2>{{ late ? 'Late next' : 'Waiting longest' }}</h2>
        <ol v-if="news.next.length">
          <li v-for="one in news.next" :key="one.type + one.id">
            <RouterLink :to="`/desk/${station}/${one.type}/${one.id}`">
              <span class="top"
                ><span class="mono">{{ one.number }}</span> <strong>{{ one.summary }}</strong></span
              >
              <span class="under"
                ><TargetGauge :target="one.target" wide /><span class="soft">waits for {{ one.waitsFor }}</span></span
              >
            </RouterLink>
          </li>
        </ol>
        <p v-else class="soft">{{ late ? 'Nothing here has a target still ahead.' : 'Nothing waits here.' }}</p>
      </section>
      <section aria-label="Changed since you last looked">
        <h2>Changed since you last looked, {{ shortTime(since) }}</h2>
        <ol v-if="news.changed.length">
          <li v-for="one in news.changed" :key="one.type + one.id">
            <RouterLink :to="`/desk/${station}/${one.type}/${one.id}`">
              <span class="top"
                ><span class="mono">{{ one.number }}</span> <strong>{{ one.summary }}</strong></span
              >
              <span class="under soft"
                ><span class="mono">{{ shortTime(one.at) }}</span> {{ one.who }} {{ eventSays(one)
                }}<template v-if="one.times > 1">, {{ one.times - 1 }} more before</template></span
              >
            </RouterLink>
          </li>
        </ol>
        <p v-else class="soft">Nobody else changed anything of what stands here.</p>
      </section>
    </template>
  </div>
</template>

<style scoped>
.home {
  padding: 24px 20px;
  display: grid;
  gap: 18px;
  max-width: 720px;
}
section {
  display: grid;
  gap: 6px;
}
h2 {
  padding-bottom: 4px;
  border-bottom: 1px solid var(--line);
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
}
li a {
  display: grid;
  gap: 2px;
  padding: 6px 8px;
  margin: 0 -8px;
  color: var(--ink);
  text-decoration: none;
  border-radius: 4px;
}
li a:hover {
  background: var(--shoal-faint);
}
.top,
.under {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 10px;
  align-items: baseline;
}
.under {
  font-size: 13px;
}
.waiting {
  display: grid;
  gap: 12px;
}
.waiting .bones {
  height: 40px;
}
kbd {
  border: 1px solid var(--line-strong);
  border-radius: 3px;
  padding: 0 5px;
}
</style>
