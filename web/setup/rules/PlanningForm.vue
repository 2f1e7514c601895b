<script setup lang="ts">
import { COSTING_NAMES, COSTINGS, MOST_TOLERANCE } from '#core/orders'
import type { PlanningRules } from '#core/orders'
import { ChoiceEntry, MoneyField, named, NumberEntry } from '#web/kit'

/** How far a plan may grow beyond what was agreed to, and what parts count for; kept as soon as it is changed. */
const props = defineProps<{ rules: PlanningRules }>()
const emit = defineEmits<{ save: [PlanningRules] }>()
const set = (change: Partial<PlanningRules>) => emit('save', { ...props.rules, ...change })
</script>

<template>
  <div class="entries">
    <NumberEntry
      id="planning-tolerance"
      label="May grow without being asked about again by"
      unit="%"
      :least="0"
      :most="MOST_TOLERANCE"
      :model-value="rules.tolerancePercent"
      @update:model-value="$event !== null && set({ tolerancePercent: $event })"
    />
    <MoneyField
      name="planning-spot"
      label="Technicians may start on the spot what costs up to"
      :value="rules.onSpotMinor"
      @save="set({ onSpotMinor: $event as number | null })"
    />
    <ChoiceEntry
      id="planning-costing"
      label="Parts count at"
      :model-value="rules.costing"
      :options="named(COSTINGS, COSTING_NAMES)"
      @update:model-value="$event && set({ costing: $event })"
    />
  </div>
</template>

<style scoped src="./entries.css"></style>
