<script setup lang="ts">
import { computed } from 'vue'
import { MOST_LEAD_DAYS, SERVICE_LEVELS, weighPart } from '#core/stock'
import type { BuyingRules, ServiceLevel } from '#core/stock'
import { DecimalField, ListEntry, NumberEntry } from '#web/kit'

/** What the reorder point and the economic quantity are made from, with an example; kept as soon as it is changed. */
const props = defineProps<{ rules: BuyingRules }>()
const emit = defineEmits<{ save: [BuyingRules] }>()
const set = (change: Partial<BuyingRules>) => emit('save', { ...props.rules, ...change })
const LEVELS = SERVICE_LEVELS.map((level) => ({ value: level, label: level === 50 ? 'No safety stock' : `${level} % sure` }))
/** A part of 20.00 that was issued one by one, ten times in thirty days. */
const example = computed(() =>
  weighPart(
    {
      unit: 'pieces',
      onHand: 2,
      reserved: 0,
      onOrder: 0,
      awaited: 0,
      unitCostMinor: 2_000,
      leadDays: null,
      demand: { days: 360, sum: 120, squares: 120 },
    },
    props.rules,
  ),
)
</script>

<template>
  <div class="entries">
    <DecimalField
      id="buying-order-cost"
      label="To place and take in one purchase costs"
      kind="money"
      :value="rules.orderCostMinor"
      @save="$event !== null && set({ orderCostMinor: Number($event) })"
    />
    <NumberEntry
      id="buying-holding"
      label="To hold stock for a year costs of its value"
      unit="%"
      :least="0"
      :most="200"
      :decimals="1"
      :model-value="rules.holdingPercent"
      @update:model-value="$event !== null && set({ holdingPercent: $event })"
    />
    <ListEntry
      id="buying-level"
      label="Not to run out while waiting"
      :model-value="rules.serviceLevel"
      :options="LEVELS"
      @update:model-value="$event && set({ serviceLevel: $event as ServiceLevel })"
    />
    <NumberEntry
      id="buying-lead"
      label="Deliveries take, where a part says nothing"
      unit="days"
      :least="0"
      :most="MOST_LEAD_DAYS"
      :model-value="rules.leadDays"
      @update:model-value="$event !== null && set({ leadDays: $event })"
    />
    <p class="soft">For a part of 20.00, used ten times in thirty days, with two left: buy {{ example.buy }}. {{ example.because.slice(2).join(' ') }}</p>
  </div>
</template>

<style scoped src="./entries.css"></style>
