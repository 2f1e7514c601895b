<script setup lang="ts">
import DecimalField from './DecimalField.vue'
import { useFresh } from './fresh'
import FreshMark from './FreshMark.vue'

/** An amount of the site's currency on a Sheet, in minor units. */
const props = defineProps<{ name: string; label: string; value: number | null; disabled?: boolean; problem?: string }>()
const emit = defineEmits<{ save: [amount: number | null, base: number | null] }>()
const fresh = useFresh(() => props.name)
const save = (amount: number | string | null, base: number | string | null) => emit('save', amount as number | null, base as number | null)
</script>

<template>
  <div @focusin="fresh.seen">
    <DecimalField :id="`f-${name}`" kind="money" :label="label" :value="value" :disabled="disabled" :problem="problem" @save="save">
      <template #mark><FreshMark :by="fresh.by.value" /></template>
    </DecimalField>
  </div>
</template>
