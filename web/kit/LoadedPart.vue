<script setup lang="ts" generic="T">
import type { Loading } from './loading'
import ProblemNote from './ProblemNote.vue'

/** Part of a page that waits for what it reads: what failed and the way on, bones of its height, or what was read. What was read once stays while it is read anew. */
defineProps<{ part: Loading<T> }>()
</script>

<template>
  <slot v-if="part.value.value !== null" :value="part.value.value" />
  <ProblemNote v-else-if="part.problem.value" :problem="part.problem.value" @retry="part.load" />
  <div v-else class="bones wait" role="status" aria-label="Loading" />
</template>
