<script setup lang="ts">
import { computed, ref } from 'vue'
import { RouterLink } from 'vue-router'
import type { WaitingOrder } from '#contract/board'
import { PriorityBar, spanTime, TargetGauge, TextEntry } from '#web/kit'

/** Work that nobody is planned for, the nearest target first, each with what stands between it and dispatch. */
const props = defineProps<{ rows: WaitingOrder[] }>()
const words = ref('')
const shown = computed(() => {
  const wanted = words.value.trim().toLowerCase()
  return props.rows.filter((row) => !wanted || `${row.number} ${row.summary} ${row.placeCode ?? ''} ${row.trade ?? ''}`.toLowerCase().includes(wanted))
})
const station = ({ state }: WaitingOrder) => (state === 'on_hold' ? 'planning' : 'dispatch')
</script>

<template>
  <section class="waiting" aria-label="Nobody is planned">
    <h2>
      Nobody is planned <span class="mono soft">{{ rows.length }}</span>
    </h2>
    <TextEntry id="waiting-words" v-model="words" label="Find" label-hidden placeholder="Number, words, place or trade" />
    <ul>
      <li v-for="row in shown" :key="row.id">
        <RouterLink class="name" :to="`/desk/${station(row)}/order/${row.id}`"
          ><span class="mono">{{ row.number }}</span> {{ row.summary }}</RouterLink
        >
        <p class="facts">
          <PriorityBar v-if="row.priority" :priority="row.priority" /> <span v-if="row.placeCode" class="mono soft">{{ row.placeCode }}</span>
          <span v-if="row.trade" class="soft">{{ row.trade }}</span> <TargetGauge :target="row.target" />
        </p>
        <p v-if="row.window" class="soft">Agreed for {{ spanTime(row.window.from, row.window.until) }}</p>
        <ul v-if="row.ready.length" class="between" :aria-label="`Between ${row.number} and dispatch`">
          <li v-for="line in row.ready" :key="line.sentence">{{ line.sentence }}</li>
        </ul>
        <p v-else class="soft">
          {{ row.state === 'on_hold' ? 'On hold; nothing else stands between it and dispatch.' : 'Nothing stands between it and dispatch.' }}
        </p>
      </li>
    </ul>
    <p v-if="!rows.length" class="soft">Everything that is approved has somebody planned for it.</p>
    <p v-else-if="!shown.length" class="soft">Nothing fits these words.</p>
  </section>
</template>

<style scoped>
.waiting {
  display: grid;
  gap: 8px;
  min-width: 0;
}
h2 {
  font-size: 15px;
  margin: 0;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
.waiting > ul > li {
  padding: 10px 0;
  border-bottom: 1px solid var(--line);
  display: grid;
  gap: 4px;
}
.name {
  color: var(--ink);
  font-weight: 600;
  text-decoration: none;
  overflow-wrap: anywhere;
}
.name:hover,
.name:focus-visible {
  text-decoration: underline;
}
.waiting p {
  margin: 0;
}
.facts {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 10px;
  align-items: center;
}
.between {
  padding-left: 12px;
  border-left: 3px solid var(--sand);
  font-size: 13px;
}
</style>
