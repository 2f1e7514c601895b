<script setup lang="ts">
import { NInputNumber } from 'naive-ui/es/input-number'
import { useKeptValue } from './keptValue'

/** A whole number, kept when the field is left or Enter pressed; emptied, or refused by `keep`, it shows again what stands. */
const props = defineProps<{ value: number; name: string; least?: number; most?: number; keep: (value: number) => Promise<boolean> }>()
const { typed, leave } = useKeptValue(
  () => props.value,
  (value) => props.keep(value),
)
</script>

<template>
  <NInputNumber
    v-model:value="typed"
    class="number mono"
    size="small"
    :show-button="false"
    :min="least"
    :max="most"
    :precision="0"
    :input-props="{ 'aria-label': name }"
    @blur="leave"
    @keydown.enter="leave"
  />
</template>

<style scoped>
.number {
  width: 120px;
}
</style>
