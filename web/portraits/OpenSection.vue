<script setup lang="ts">
import { RouterLink } from 'vue-router'
import type { OpenWork } from '#contract/portraits'
import type { OrderState } from '#core/orders'
import { REQUEST_STATE_NAMES } from '#core/requests'
import type { RequestState } from '#core/requests'
import { ProblemNote, StageRing, TargetGauge } from '#web/kit'
import { usePortraitWork } from './work'

/** Orders and requests on it that are not over, the most pressing first. */
const read = usePortraitWork()
const to = (one: OpenWork) => `/desk/${one.type === 'order' ? 'planning' : 'triage'}/${one.type}/${one.id}`
</script>

<template>
  <ProblemNote v-if="read.problem.value && !read.value.value" :problem="read.problem.value" @retry="read.load" />
  <ul v-else-if="read.value.value" class="open">
    <li v-for="one in read.value.value.open" :key="one.type + one.id">
      <RouterLink :to="to(one)"
        ><span class="mono">{{ one.number }}</span> {{ one.summary }}</RouterLink
      >
      <span class="under">
        <TargetGauge :target="one.target" wide />
        <StageRing v-if="one.type === 'order'" :state="one.state as OrderState" :held-from="null" />
        <span v-else>{{ REQUEST_STATE_NAMES[one.state as RequestState] }}</span>
      </span>
    </li>
  </ul>
  <span v-else class="bones" role="status" aria-label="Loading" />
</template>

<style scoped>
.open {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 8px;
}
.under {
  display: flex;
  gap: 12px;
  font-size: 13px;
}
.bones {
  height: 60px;
}
</style>
