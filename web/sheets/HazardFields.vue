<script setup lang="ts">
import { LIKELIHOOD_NAMES, LIKELIHOODS, SEVERITIES, SEVERITY_NAMES } from '#core/requests'
import type { HazardSaid, Likelihood, Severity } from '#core/requests'
import { PickField } from '#web/kit'

/** How severe and how likely: together they can raise the priority, and never lower it. */
defineProps<{ severity: HazardSaid['hazardSeverity']; likelihood: Likelihood | null; disabled?: boolean; problem?: string }>()
defineEmits<{ save: [Partial<HazardSaid>] }>()
const severities = [{ value: 'none', label: 'No hazard' }, ...SEVERITIES.map((one) => ({ value: one, label: SEVERITY_NAMES[one] }))]
</script>

<template>
  <PickField
    id="f-hazardSeverity"
    label="Hazard: how severe"
    :value="severity"
    :choices="severities"
    :disabled="disabled"
    :problem="problem"
    clearable
    @pick="$emit('save', { hazardSeverity: $event as Severity | 'none' | null, ...($event && $event !== 'none' ? {} : { hazardLikelihood: null }) })"
  />
  <PickField
    id="f-hazardLikelihood"
    label="Hazard: how likely"
    :value="likelihood"
    :choices="LIKELIHOODS.map((one) => ({ value: one, label: LIKELIHOOD_NAMES[one] }))"
    :disabled="disabled || !severity || severity === 'none'"
    @pick="$emit('save', { hazardLikelihood: $event as Likelihood })"
  />
</template>
