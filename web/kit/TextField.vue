<script setup lang="ts">
import { ref, watch } from 'vue'
import { useDraft } from './draft'
import { useFresh } from './fresh'
import FreshMark from './FreshMark.vue'

/** A text that saves when it is left. Esc brings back what was saved, and what was typed can be had again. */
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
const emit = defineEmits<{ save: [text: string, base: string] }>()
const fresh = useFresh(() => props.name)
/** What is typed and not saved yet: it outlives the page. */
const draft = useDraft(() => `field-${location.pathname}-${props.name}`)
const text = ref(draft.value || (props.value ?? ''))
/** What Esc took out of the field. */
const taken = ref('')
/** What stood here when the typing began: a change by somebody else meanwhile becomes a conflict. */
const base = ref(props.value ?? '')
watch(text, (now) => (draft.value = now === base.value ? '' : now))
watch(
  () => props.value,
  (now) => {
    if (text.value === base.value || text.value.trim() === (now ?? '')) text.value = base.value = now ?? ''
  },
)
function leave(): void {
  const typed = text.value.trim()
  draft.value = ''
  if (typed === base.value) return
  emit('save', typed, base.value)
  base.value = typed
}
function giveUp(): void {
  taken.value = text.value.trim() === base.value ? '' : text.value
  text.value = base.value = props.value ?? ''
}
function bringBack(): void {
  text.value = taken.value
  taken.value = ''
  document.getElementById(`f-${props.name}`)?.focus()
}
</script>

<template>
  <div class="field" @focusin="fresh.seen">
    <label :for="`f-${name}`">{{ label }}<FreshMark :by="fresh.by.value" /></label>
    <textarea
      v-if="long"
      :id="`f-${name}`"
      v-model="text"
      class="entry"
      :disabled="disabled"
      :maxlength="max ?? 4000"
      :aria-invalid="!!problem"
      @blur="leave"
      @keydown.esc="giveUp"
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
      @keydown.esc="giveUp"
      @keydown.enter="leave"
    />
    <datalist v-if="list" :id="`l-${name}`"><option v-for="one in list" :key="one" :value="one" /></datalist>
    <p v-if="taken" class="soft hint"><button class="link" type="button" @click="bringBack">Bring back what you typed</button></p>
    <p v-if="problem" class="problem">{{ problem }}</p>
    <p v-else-if="hint" class="soft hint">{{ hint }}</p>
  </div>
</template>

<style scoped>
.hint {
  font-size: 12px;
}
</style>
