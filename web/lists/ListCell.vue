<script setup lang="ts">
import { computed } from 'vue'
import type { OrderLine } from '#contract/orders'
import { formatMinor } from '#core/kit'
import type { ListField, ListKind } from '#core/lists'
import { HOLD_REASON_NAMES, ORDER_KIND_NAMES } from '#core/orders'
import { CHANNEL_NAMES, REQUEST_STATE_NAMES } from '#core/requests'
import { PriorityBar, shortTime, StageRing, TargetGauge } from '#web/kit'
import { cellWords } from './cellWords'
import type { WorkLine } from './useList'

/** One cell of a list. */
const props = defineProps<{ kind: ListKind; line: WorkLine; column: ListField }>()
const name = computed(() => props.column.name)
const order = computed(() => (props.kind === 'orders' ? (props.line as OrderLine) : null))
const value = computed(() => (props.line as unknown as Record<string, unknown>)[name.value])
const shape = computed(() => props.column.shape)
const NAMES: Record<string, Record<string, string>> = { kind: ORDER_KIND_NAMES, hold: HOLD_REASON_NAMES, channel: CHANNEL_NAMES }
const words = computed(() => {
  if (props.column.own) return cellWords(props.line.own?.[name.value], props.column)
  if (value.value === null || value.value === undefined || value.value === '') return ''
  if (NAMES[name.value]) return NAMES[name.value]![String(value.value)] ?? ''
  if (shape.value === 'day') return shortTime(String(value.value))
  if (shape.value === 'money') return formatMinor(Number(value.value))
  return String(value.value)
})
</script>

<template>
  <span v-if="name === 'number'" class="mono number">{{ line.number }}</span>
  <strong v-else-if="name === 'summary'" class="cut">{{ line.summary }}</strong>
  <StageRing v-else-if="name === 'state' && order" :state="order.state" :held-from="order.heldFrom" />
  <span v-else-if="name === 'state'">{{ REQUEST_STATE_NAMES[line.state as 'new'] }}</span>
  <PriorityBar v-else-if="name === 'priority'" :priority="line.priority" />
  <TargetGauge v-else-if="name === 'standing'" :target="line.target" />
  <span v-else-if="name === 'place'" class="cut" :title="line.placeName ?? ''"
    ><span class="mono">{{ line.place }}</span> {{ line.placeName }}</span
  >
  <span
    v-else
    class="cut"
    :class="{ mono: shape === 'day' || shape === 'money' || name === 'payer' || name === 'asset', violet: shape === 'money' }"
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
