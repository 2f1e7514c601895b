<script setup lang="ts">
import { MOST_WAIT } from '#core/dispatch'
import type { AnswerWait, VendorRules } from '#core/dispatch'
import { NumberEntry } from '#web/kit'

/** How long a vendor may be silent before they are reminded, and before the desk hears of it. */
const props = defineProps<{ rules: VendorRules }>()
const emit = defineEmits<{ save: [VendorRules] }>()
const ROWS: { of: keyof VendorRules; key: keyof AnswerWait; label: string }[] = [
  { of: 'emergency', key: 'remind', label: 'Emergency: remind after' },
  { of: 'emergency', key: 'tell', label: 'Emergency: tell the desk after' },
  { of: 'other', key: 'remind', label: 'Otherwise: remind after' },
  { of: 'other', key: 'tell', label: 'Otherwise: tell the desk after' },
]
</script>

<template>
  <p class="soft">Emergencies count by the clock, everything else in working time; the desk hears of it before the visit begins in any case.</p>
  <div class="entries">
    <NumberEntry
      v-for="{ of, key, label } in ROWS"
      :id="`vendor-${of}-${key}`"
      :key="`${of}-${key}`"
      :label="label"
      unit="min"
      :least="5"
      :most="MOST_WAIT"
      :step="5"
      :model-value="rules[of][key]"
      @update:model-value="$event !== null && emit('save', { ...props.rules, [of]: { ...props.rules[of], [key]: $event } })"
    />
  </div>
</template>

<style scoped src="./entries.css"></style>
