<script setup lang="ts">
import { NInput } from 'naive-ui/es/input'
import { useKeptValue } from './keptValue'

/** A short text, kept when the field is left or Enter pressed; emptied, or refused by `keep`, it shows again what stands. */
const props = defineProps<{ value: string; name: string; most?: number; wide?: boolean; keep: (value: string) => Promise<boolean> }>()
const { typed, leave } = useKeptValue(
  () => props.value,
  (value) => props.keep(value),
  (text) => text?.trim() || null,
)
</script>

<template>
  <NInput
    v-model:value="typed"
    :class="wide ? 'long' : 'short mono'"
    size="small"
    :maxlength="most"
    :input-props="{ 'aria-label': name }"
    @blur="leave"
    @keydown.enter="leave"
  />
</template>

<style scoped>
.short {
  width: 104px;
}
.long {
  width: 220px;
}
</style>
