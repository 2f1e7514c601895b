<script setup lang="ts">
import { MOST_WAIT } from '#core/dispatch'
import type { AnswerWait, VendorRules } from '#core/dispatch'
import { NumberEntry } from '#web/kit'

/** How long a vendor may be silent before they are reminded, and before the desk hears of it. */
const props = defineProps<{ rules: VendorRules }>()
const emit = defineEmits<{ save: [VendorRules] }>()
const ROWS: { when: keyof VendorRules; key: keyof AnswerWait; label: string }[] = [
  { when: 'emergency', key: 'remind', label: 'Emergency: remind after' },
  { when: 'emergency', key: 'tell', label: 'Emergency: tell the desk after' },
  { when: 'other', key: 'remind', label: 'Otherwise: remind after' },
  { when: 'other', key: 'tell', label: 'Otherwise: tell the desk after' },
]
</script>

<template>
  <p class="soft">Emergencies count by the clock, everything else in working time; the desk hears of it before the visit begins in any case.</p>
  <div class="entries">
    <NumberEntry
      v-for="{ when, key, label } in ROWS"
      :id="`vendor-${when}-${key}`"
      :key="`${when}-${key}`"
      :label="label"
      unit="min"
      :least="5"
      :most="MOST_WAIT"
      :step="5"
      :model-value="rules[when][key]"
      @update:model-value="$event !== null && emit('save', { ...props.rules, [when]: { ...props.rules[when], [key]: $event } })"
    />
  </div>
</template>

<style scoped src="./entries.css"></style>
