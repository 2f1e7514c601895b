<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, ref } from 'vue'
import { RouterLink } from 'vue-router'
import type { Suggestion } from '#contract/requests'
import { offerActs, shortTime, useSteady } from '#web/kit'
import { useSuggestions } from './useSuggestions'

/** What this most likely is, from what was decided before. One key takes a suggestion; nothing is taken by itself. */
const props = defineProps<{ requestId: number; version: number; categoryId: number | null; assetId: number | null; mayTriage: boolean }>()
const emit = defineEmits<{ take: [{ categoryId?: number; assetId?: number }]; join: [number] }>()
const found = useSuggestions(props)
/** It comes when history is read, above the grid that is pressed to decide. */
const room = ref<HTMLElement | null>(null)
useSteady(room)

interface Offer {
  what: string
  guess: Suggestion
  change: { categoryId?: number; assetId?: number }
}
/** Those that say something other than what is chosen already. */
const offers = computed<Offer[]>(() => {
  const { category, asset } = found.value ?? {}
  return [
    ...(category && category.id !== props.categoryId ? [{ what: 'What it is about', guess: category, change: { categoryId: category.id } }] : []),
    ...(asset && asset.id !== props.assetId ? [{ what: 'Asset', guess: asset, change: { assetId: asset.id } }] : []),
  ]
})
offerActs(() => {
  if (!props.mayTriage) return []
  const [first] = offers.value
  if (first) return [{ label: `Take the suggestion: ${first.guess.name}`, key: 'g', run: () => emit('take', first.change), changes: true }]
  // Pressed too early or for nothing, the key says so rather than nothing.
  const whyNot = found.value?.ready ? 'History suggests nothing more for this.' : 'History is still being read; suggestions come in a moment.'
  return [{ label: 'Take the suggestion', key: 'g', run: () => undefined, whyNot }]
})
/** A request carries no trade of its own: the order takes that of the category, and can say another. */
const trade = computed(() => found.value?.trade ?? null)
const empty = computed(() => !trade.value && !offers.value.length && !found.value?.duplicates.length)
</script>

<template>
  <div ref="room">
    <div v-if="found && !empty" class="box" role="group" aria-label="From what was decided before">
      <ul v-if="mayTriage && offers.length" class="offers">
        <li v-for="(one, index) in offers" :key="one.what">
          <p>
            {{ one.what }}: <strong>{{ one.guess.name }}</strong>, {{ one.guess.sure }} <span class="soft">{{ one.guess.because }}</span>
          </p>
          <NButton size="small" @click="emit('take', one.change)">Take it <kbd v-if="index === 0">G</kbd></NButton>
        </li>
      </ul>
      <template v-if="found.duplicates.length">
        <p v-for="one in found.duplicates" :key="one.id" class="line">
          <span class="soft">Open, and perhaps the same:</span>
          <RouterLink :to="`/desk/intake/request/${one.id}`"
            ><span class="mono">{{ one.number }}</span> {{ one.summary }}</RouterLink
          >
          <span class="soft">{{ one.place }}, {{ shortTime(one.receivedAt) }}</span>
          <NButton v-if="mayTriage" size="small" :aria-label="`Join to it: ${one.number}`" @click="emit('join', one.id)">Join to it</NButton>
        </p>
      </template>
      <p v-if="!found.ready" class="soft" role="status">History is being read; suggestions come in a moment.</p>
      <p v-if="trade" class="soft small">
        Trade: <strong>{{ trade.name }}</strong>, {{ trade.sure }} {{ trade.because }}. The order takes that of the category, and can say another.
      </p>
    </div>
  </div>
</template>

<style scoped>
.box {
  display: grid;
  gap: 6px;
}
.offers {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 6px;
}
.offers li {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 12px;
  align-items: center;
  justify-content: space-between;
  padding: 4px 10px;
  border-left: 4px solid var(--tide);
  background: var(--shoal-faint);
  border-radius: 0 6px 6px 0;
}
.line {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 10px;
  align-items: baseline;
}
.small {
  font-size: 13px;
}
</style>
