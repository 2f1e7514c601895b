<script setup lang="ts">
import { computed } from 'vue'
import type { OrderLine } from '#contract/orders'
import { formatMinor } from '#core/kit'
import { listField } from '#core/lists'
import type { ListKind } from '#core/lists'
import { HOLD_REASON_NAMES, ORDER_KIND_NAMES } from '#core/orders'
import { CHANNEL_NAMES, REQUEST_STATE_NAMES } from '#core/requests'
import { PriorityBar, shortTime, StageRing, TargetGauge } from '#web/kit'
import type { Line } from './useList'

/** One cell of a list. */
const props = defineProps<{ kind: ListKind; line: Line; column: string }>()
const order = computed(() => (props.kind === 'orders' ? (props.line as OrderLine) : null))
const value = computed(() => (props.line as unknown as Record<string, unknown>)[props.column])
const shape = computed(() => listField(props.kind, props.column)!.shape)
const NAMES: Record<string, Record<string, string>> = { kind: ORDER_KIND_NAMES, hold: HOLD_REASON_NAMES, channel: CHANNEL_NAMES }
const words = computed(() => {
  if (value.value === null || value.value === undefined || value.value === '') return ''
  if (NAMES[props.column]) return NAMES[props.column]![String(value.value)] ?? ''
  if (shape.value === 'day') return shortTime(String(value.value))
  if (shape.value === 'money') return formatMinor(Number(value.value))
  return String(value.value)
})
</script>

<template>
  <span v-if="column === 'number'" class="mono number">{{ line.number }}</span>
  <strong v-else-if="column === 'summary'" class="cut">{{ line.summary }}</strong>
  <StageRing v-else-if="column === 'state' && order" :state="order.state" :held-from="order.heldFrom" />
  <span v-else-if="column === 'state'">{{ REQUEST_STATE_NAMES[line.state as 'new'] }}</span>
  <PriorityBar v-else-if="column === 'priority'" :priority="line.priority" />
  <TargetGauge v-else-if="column === 'standing'" :target="line.target" />
  <span v-else-if="column === 'place'" class="cut" :title="line.placeName ?? ''"
    ><span class="mono">{{ line.place }}</span> {{ line.placeName }}</span
  >
  <span
    v-else
    class="cut"
    :class="{ mono: shape === 'day' || shape === 'money' || column === 'payer' || column === 'asset', violet: shape === 'money' }"
    :title="words"
    >{{ words }}</span
  >
</template>

<style scoped>
.cut {
  display: block;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.number {
  white-space: nowrap;
}
strong {
  font-weight: 600;
}
</style>
