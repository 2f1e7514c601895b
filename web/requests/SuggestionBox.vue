<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, onUnmounted, watch } from 'vue'
import { RouterLink } from 'vue-router'
import { readSuggestions } from '#contract/requests'
import type { Suggestion } from '#contract/requests'
import { formatMinor } from '#core/kit'
import { call, offerActs, shortTime, spell, useLoading } from '#web/kit'

/** What this most likely is, from what was decided before. One key takes a suggestion; nothing is taken by itself. */
const props = defineProps<{ requestId: number; version: number; categoryId: number | null; assetId: number | null; mayTriage: boolean }>()
const emit = defineEmits<{ take: [{ categoryId?: number; assetId?: number }]; join: [number] }>()
const LOOK_AGAIN_MS = 1_500
const found = useLoading(() => call(readSuggestions, { id: props.requestId }))
let timer: ReturnType<typeof setTimeout> | undefined
async function look(): Promise<void> {
  clearTimeout(timer)
  await found.load()
  // History is read once after a start; it is there in a moment.
  if (found.value.value && !found.value.value.ready) timer = setTimeout(() => void look(), LOOK_AGAIN_MS)
}
watch(() => [props.requestId, props.version], look, { immediate: true })
onUnmounted(() => clearTimeout(timer))

interface Offer {
  what: string
  guess: Suggestion
  change: { categoryId?: number; assetId?: number }
}
/** Those that say something other than what is chosen already. */
const offers = computed<Offer[]>(() => {
  const { category, asset } = found.value.value ?? {}
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
  const whyNot = found.value.value?.ready ? 'History suggests nothing more for this.' : 'History is still being read; suggestions come in a moment.'
  return [{ label: 'Take the suggestion', key: 'g', run: () => undefined, whyNot }]
})
/** A request carries no trade of its own: the order takes that of the category, and can say another. */
const trade = computed(() => found.value.value?.trade ?? null)
const empty = computed(() => !trade.value && !offers.value.length && !found.value.value?.duplicates.length && !found.value.value?.precedents.length)
</script>

<template>
  <section v-if="found.value.value && !empty" aria-label="From what was decided before">
    <h2>From what was decided before</h2>
    <p v-if="trade" class="soft">
      Trade: <strong>{{ trade.name }}</strong>, {{ trade.sure }} {{ trade.because }}. The order takes that of the category, and can say another.
    </p>
    <ul v-if="mayTriage && offers.length" class="offers">
      <li v-for="(one, index) in offers" :key="one.what">
        <p>
          {{ one.what }}: <strong>{{ one.guess.name }}</strong>, {{ one.guess.sure }} <span class="soft">{{ one.guess.because }}</span>
        </p>
        <NButton @click="emit('take', one.change)">Take it <kbd v-if="index === 0">G</kbd></NButton>
      </li>
    </ul>
    <div v-if="found.value.value.duplicates.length" class="block">
      <h3>Open, and perhaps the same</h3>
      <p v-for="one in found.value.value.duplicates" :key="one.id" class="line">
        <RouterLink :to="`/desk/intake/request/${one.id}`"
          ><span class="mono">{{ one.number }}</span> {{ one.summary }}</RouterLink
        >
        <span class="soft">{{ one.place }}, {{ shortTime(one.receivedAt) }}</span>
        <NButton v-if="mayTriage" :aria-label="`Join to it: ${one.number}`" @click="emit('join', one.id)">Join to it</NButton>
      </p>
    </div>
    <div v-if="found.value.value.precedents.length" class="block">
      <h3>Solved before</h3>
      <p v-for="one in found.value.value.precedents" :key="one.id" class="line">
        <RouterLink :to="`/desk/charges/order/${one.id}`"
          ><span class="mono">{{ one.number }}</span> {{ one.summary }}</RouterLink
        >
        <span class="soft">{{ [one.outcome, one.place, one.who, one.minutes ? spell(one.minutes) : ''].filter(Boolean).join(', ') }}</span>
        <span class="mono violet">{{ formatMinor(one.costMinor) }}</span>
      </p>
    </div>
    <p v-if="!found.value.value.ready" class="soft" role="status">History is being read; suggestions come in a moment.</p>
  </section>
</template>

<style scoped src="../sheets/sheet.css"></style>
<style scoped>
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
  padding: 6px 10px;
  border-left: 4px solid var(--tide);
  background: var(--shoal-faint);
  border-radius: 0 6px 6px 0;
}
.block {
  display: grid;
  gap: 4px;
  margin-top: 8px;
}
.line {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 10px;
  align-items: baseline;
}
.line a {
  color: var(--ink);
}
</style>
