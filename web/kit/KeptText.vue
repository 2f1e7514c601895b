<script setup lang="ts">
import { NInput } from 'naive-ui/es/input'
import { ref, watch } from 'vue'

/** A short text, kept when the field is left or Enter pressed; emptied, or refused by `keep`, it shows again what stands. */
const props = defineProps<{ value: string; name: string; most?: number; wide?: boolean; keep: (value: string) => Promise<boolean> }>()
const typed = ref(props.value)
watch(
  () => props.value,
  (value) => (typed.value = value),
)
/** What is being kept, so that Enter and leaving keep it once. */
let keeping: string | null = null
async function leave(): Promise<void> {
  const value = typed.value.trim()
  if (!value || value === props.value || value === keeping) {
    if (!keeping) typed.value = props.value
    return
  }
  keeping = value
  if (!(await props.keep(value))) typed.value = props.value
  keeping = null
}
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
