<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { RouterLink } from 'vue-router'
import { listMySteps } from '#contract/methods'
import type { StepToDo } from '#contract/methods'
import { stationOf } from '#core/orders'
import { call, ChoiceEntry, onLiveChange, PriorityBar, ProblemNote, useLoading, useSession, useSoon } from '#web/kit'
import StepRow from './StepRow.vue'

/** Steps of orders that were given to me, without the orders being mine. */
const session = useSession()
const shown = ref<'open' | 'done'>('open')
const steps = useLoading(() => call(listMySteps, shown.value === 'done' ? { done: true } : {}))
watch(shown, () => void steps.load(), { immediate: true })
onLiveChange(useSoon(steps.load, 200))
const orders = computed(() => {
  const byOrder = new Map<number, StepToDo[]>()
  for (const step of steps.value.value?.rows ?? []) byOrder.set(step.order.id, [...(byOrder.get(step.order.id) ?? []), step])
  return [...byOrder.values()]
})
const mayOpen = computed(() => session.can('desk.read'))
const SHOWN = [
  { value: 'open', label: 'To do' },
  { value: 'done', label: 'Done' },
] as const
</script>

<template>
  <div class="page">
    <header>
      <h1>My steps</h1>
      <RouterLink v-if="session.can('field.work')" to="/rounds">Rounds</RouterLink>
    </header>
    <section aria-label="Steps">
      <ChoiceEntry id="my-steps-shown" v-model="shown" label-hidden label="Which" :options="SHOWN" />
      <ProblemNote v-if="steps.problem.value" :problem="steps.problem.value" @retry="steps.load" />
      <template v-else-if="steps.value.value">
        <article v-for="rows in orders" :key="rows[0]!.order.id" class="order">
          <h2>
            <RouterLink v-if="mayOpen" class="mono" :to="`/desk/${stationOf(rows[0]!.order.state)}/order/${rows[0]!.order.id}`">{{
              rows[0]!.order.number
            }}</RouterLink>
            <span v-else class="mono">{{ rows[0]!.order.number }}</span>
            {{ rows[0]!.order.summary }}
          </h2>
          <p class="soft"><PriorityBar v-if="rows[0]!.order.priority" :priority="rows[0]!.order.priority" /> {{ rows[0]!.order.place }}</p>
          <StepRow v-for="step in rows" :key="`${step.id}-${step.version}`" :step="step" :waits-for="step.waitsFor" may-do @changed="steps.load" />
        </article>
        <p v-if="!orders.length" class="soft">
          {{ shown === 'open' ? 'No step is yours to do. What somebody gives you appears here by itself, and at the bell.' : 'You have done none yet.' }}
        </p>
      </template>
      <div v-else class="bones wait" />
    </section>
  </div>
</template>

<style scoped src="../kit/page.css"></style>
<style scoped>
.order {
  max-width: 760px;
  margin-top: 16px;
}
.order h2 {
  margin: 0;
}
.order > p {
  display: flex;
  gap: 8px;
  align-items: center;
  margin: 2px 0 4px;
}
</style>
