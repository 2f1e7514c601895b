<script setup lang="ts">
import { NInputNumber } from 'naive-ui/es/input-number'
import { ref, watch } from 'vue'

/** A whole number, kept when the field is left or Enter pressed; emptied, or refused by `keep`, it shows again what stands. */
const props = defineProps<{ value: number; name: string; least?: number; most?: number; keep: (value: number) => Promise<boolean> }>()
const typed = ref<number | null>(props.value)
watch(
  () => props.value,
  (value) => (typed.value = value),
)
/** What is being kept, so that Enter and leaving keep it once. */
let keeping: number | null = null
async function leave(): Promise<void> {
  const value = typed.value
  if (value === null || value === props.value || value === keeping) return void (typed.value ??= props.value)
  keeping = value
  if (!(await props.keep(value))) typed.value = props.value
  keeping = null
}
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
