<script setup lang="ts">
import { computed } from 'vue'
import { RouterLink } from 'vue-router'
import { formatMinor } from '#core/kit'
import { ORDER_KIND_NAMES } from '#core/orders'
import { dayOf, ProblemNote, useSession } from '#web/kit'
import { useOpenSheet } from '#web/sheets'
import type { AnyRecord } from '#contract/portraits'
import { listOf } from './listOf'
import { usePortraitWork } from './work'

/** What was done on it last, with cause, fix and cost; the whole of it is a list. */
const { sheet: it } = useOpenSheet<AnyRecord>()
const session = useSession()
const read = usePortraitWork()
const work = computed(() => read.value.value)
const whole = computed(() => listOf(it.value.register, it.value.id, 'state=done,checked,closed'))
const outcome = (parts: (string | null)[]) => parts.filter(Boolean).join(' → ')
</script>

<template>
  <ProblemNote v-if="read.problem.value && !work" :problem="read.problem.value" @retry="read.load" />
  <span v-else-if="!work" class="bones" role="status" aria-label="Loading" />
  <p v-else-if="!work.done.length" class="soft">Nothing was finished on it yet.</p>
  <template v-else>
    <div class="scroll">
      <table class="plain-table" aria-label="What was done">
        <thead>
          <tr>
            <th>Finished</th>
            <th>Order</th>
            <th>What was wrong, why, what was done</th>
            <th v-if="session.can('ledger.read')" class="amount">Cost</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="one in work.done" :key="one.id">
            <td class="mono day">{{ dayOf(one.finishedAt) }}</td>
            <td>
              <RouterLink :to="`/desk/charges/order/${one.id}`"
                ><span class="mono">{{ one.number }}</span> {{ one.summary }}</RouterLink
              ><span v-if="one.kind !== 'repair'" class="soft kind">{{ ORDER_KIND_NAMES[one.kind] }}</span>
            </td>
            <td>{{ outcome([one.symptom, one.cause, one.fix]) || '–' }}</td>
            <td v-if="session.can('ledger.read')" class="amount mono violet">{{ formatMinor(one.costMinor) }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <p v-if="whole && work.finished > work.done.length">
      <RouterLink :to="whole">All {{ work.finished }} that were finished</RouterLink>
    </p>
  </template>
</template>

<style scoped>
.scroll {
  overflow-x: auto;
}
.kind {
  margin-left: 8px;
}
.day {
  white-space: nowrap;
}
.bones {
  height: 120px;
}
</style>
