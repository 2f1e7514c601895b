<script setup lang="ts">
import { ref, watch } from 'vue'

/** A text that saves when it is left. Esc brings back what was saved. */
const props = defineProps<{
  name: string
  label: string
  value: string | null
  long?: boolean
  disabled?: boolean
  problem?: string
  max?: number
  hint?: string
  list?: string[]
}>()
const emit = defineEmits<{ save: [string] }>()
const text = ref(props.value ?? '')
watch(
  () => props.value,
  (now, before) => {
    if (text.value === (before ?? '')) text.value = now ?? ''
  },
)
function leave(): void {
  if (text.value.trim() !== (props.value ?? '')) emit('save', text.value.trim())
}
</script>

<template>
  <div class="field">
    <label :for="`f-${name}`">{{ label }}</label>
    <textarea
      v-if="long"
      :id="`f-${name}`"
      v-model="text"
      class="entry"
      :disabled="disabled"
      :maxlength="max ?? 4000"
      :aria-invalid="!!problem"
      @blur="leave"
      @keydown.esc="text = value ?? ''"
      @keydown.ctrl.enter="leave"
    />
    <input
      v-else
      :id="`f-${name}`"
      v-model="text"
      class="entry"
      :disabled="disabled"
      :maxlength="max ?? 140"
      :aria-invalid="!!problem"
      :list="list ? `l-${name}` : undefined"
      @blur="leave"
      @keydown.esc="text = value ?? ''"
      @keydown.enter="leave"
    />
    <datalist v-if="list" :id="`l-${name}`"><option v-for="one in list" :key="one" :value="one" /></datalist>
    <p v-if="problem" class="problem">{{ problem }}</p>
    <p v-else-if="hint" class="soft hint">{{ hint }}</p>
  </div>
</template>

<style scoped>
.hint {
  font-size: 12px;
}
</style>
