<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { NCheckbox } from 'naive-ui/es/checkbox'
import { computed, defineAsyncComponent, ref, watch } from 'vue'
import { RouterLink } from 'vue-router'
import type { FindingRow } from '#contract/findings'
import { FINDING_STATE_NAMES, mayTakeUp } from '#core/findings'
import { ORDER_STATE_NAMES } from '#core/orders'
import { RecordLink, shortTime, useSession } from '#web/kit'
import { PictureRow } from '#web/sheets'
import FindingActs from './FindingActs.vue'
import SeverityMark from './SeverityMark.vue'
import { takeUp } from './takeUp'

/** Findings as the desk decides about them: those that wait are marked and go into an order, together or each. */
const props = defineProps<{
  label: string
  rows: readonly FindingRow[]
  /** Says on which order each was found. */
  named?: boolean
}>()
const emit = defineEmits<{ changed: [] }>()
const PinOnPlan = defineAsyncComponent(() => import('./PinOnPlan.vue'))
const session = useSession()
const mayDecide = computed(() => session.can('orders.edit'))
const chosen = ref<number[]>([])
const waiting = computed(() => props.rows.filter(({ state }) => state === 'open'))
// What somebody else decided meanwhile is not chosen any more.
watch(waiting, (now) => (chosen.value = chosen.value.filter((id) => now.some((row) => row.id === id))))
const choose = (id: number, on: boolean) => (chosen.value = on ? [...chosen.value, id] : chosen.value.filter((one) => one !== id))
const isAll = computed(() => waiting.value.length > 0 && chosen.value.length === waiting.value.length)
const chooseAll = (on: boolean) => (chosen.value = on ? waiting.value.map(({ id }) => id) : [])
/** The keyboard goes on where it was: at the list, of which the chosen ones are gone. */
const list = ref<HTMLElement | null>(null)
function decided(): void {
  chosen.value = []
  list.value?.focus()
  emit('changed')
}
const onPlan = ref<FindingRow | null>(null)
</script>

<template>
  <div class="findings">
    <NCheckbox v-if="mayDecide && waiting.length > 1" :checked="isAll" :indeterminate="chosen.length > 0 && !isAll" @update:checked="chooseAll"
      >All {{ waiting.length }} that wait</NCheckbox
    >
    <ul ref="list" :aria-label="label" tabindex="-1">
      <li v-for="row in rows" :key="row.id" :class="{ over: row.state !== 'open' }">
        <NCheckbox
          v-if="mayDecide && row.state === 'open'"
          class="mark"
          :checked="chosen.includes(row.id)"
          :aria-label="`Choose: ${row.text.slice(0, 80)}`"
          @update:checked="(on) => choose(row.id, on)"
        />
        <div class="said">
          <p class="text"><SeverityMark :severity="row.severity" /> {{ row.text }}</p>
          <p class="soft">
            <RecordLink v-if="row.assetId" :record="{ register: 'assets', id: row.assetId }">{{ row.where }}</RecordLink>
            <RecordLink v-else-if="row.placeId" :record="{ register: 'places', id: row.placeId }">{{ row.where }}</RecordLink>
            <NButton v-if="row.pin" text size="small" type="primary" class="plan" :aria-label="`On the plan: ${row.text.slice(0, 60)}`" @click="onPlan = row"
              >on the plan</NButton
            >
            · {{ row.who }}, {{ shortTime(row.at)
            }}<template v-if="named">
              · found on <RouterLink class="mono" :to="`/desk/field/order/${row.foundOn.id}`">{{ row.foundOn.number }}</RouterLink></template
            >
          </p>
          <p v-if="row.state !== 'open'" class="state">
            {{ FINDING_STATE_NAMES[row.state]
            }}<template v-if="row.answeredBy">
              <RouterLink class="mono number" :to="`/desk/planning/order/${row.answeredBy.id}`">{{ row.answeredBy.number }}</RouterLink>
              <span class="soft">{{ ORDER_STATE_NAMES[row.answeredBy.state] }}</span></template
            ><template v-if="row.setAside"> by {{ row.setAside.by }}, {{ shortTime(row.setAside.at) }}: {{ row.setAside.reason }}</template>
            <NButton
              v-if="mayDecide && mayTakeUp(row.state, row.answeredBy?.state ?? null)"
              text
              size="small"
              type="primary"
              :aria-label="`Take up again: ${row.text.slice(0, 60)}`"
              @click="takeUp(row, () => emit('changed'))"
              >Take up again</NButton
            >
          </p>
          <PictureRow v-if="row.photos.length" class="small" :pictures="row.photos" />
        </div>
      </li>
    </ul>
    <FindingActs v-if="mayDecide && waiting.length" :chosen="chosen" @done="decided" />
    <PinOnPlan v-if="onPlan" :pin="onPlan.pin!" @close="onPlan = null" />
  </div>
</template>

<style scoped>
.findings {
  display: grid;
  gap: 8px;
}
ul {
  margin: 0;
  padding: 0;
  list-style: none;
  border-top: 1px solid var(--line);
}
li {
  display: grid;
  grid-template-columns: 24px minmax(0, 1fr);
  gap: 4px;
  padding: 8px 0;
  border-bottom: 1px solid var(--line);
}
/* What the keyboard goes to is not hidden behind the acts below. */
.mark {
  margin-top: 2px;
  scroll-margin-bottom: 72px;
}
.said {
  grid-column: 2;
  display: grid;
  gap: 4px;
}
p {
  margin: 0;
}
.text {
  white-space: pre-wrap;
  overflow-wrap: anywhere;
}
.over .text {
  color: var(--ink-soft);
}
.state {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 8px;
  align-items: baseline;
}
.small :deep(img) {
  height: 72px;
}
</style>
