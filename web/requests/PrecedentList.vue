<script setup lang="ts">
import { RouterLink } from 'vue-router'
import { formatMinor } from '#core/kit'
import { spell } from '#web/kit'
import { useSuggestions } from './useSuggestions'

/** How the same was solved before. */
const props = defineProps<{ requestId: number; version: number }>()
const found = useSuggestions(props)
</script>

<template>
  <div v-if="found?.precedents.length" class="before" role="group" aria-label="Solved before">
    <h3>Solved before</h3>
    <p v-for="one in found.precedents" :key="one.id" class="line">
      <RouterLink :to="`/desk/charges/order/${one.id}`"
        ><span class="mono">{{ one.number }}</span> {{ one.summary }}</RouterLink
      >
      <span class="soft">{{ [one.outcome, one.place, one.who, one.minutes ? spell(one.minutes) : ''].filter(Boolean).join(', ') }}</span>
      <span class="mono violet">{{ formatMinor(one.costMinor) }}</span>
    </p>
  </div>
</template>

<style scoped>
.before {
  display: grid;
  gap: 2px;
}
.line {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 10px;
  align-items: baseline;
}
</style>
