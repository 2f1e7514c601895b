<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { ref, watch } from 'vue'
import { fieldDraft, useDraft } from './draft'
import { useFresh } from './fresh'
import FreshMark from './FreshMark.vue'
import SuggestEntry from './SuggestEntry.vue'
import TextEntry from './TextEntry.vue'

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
  /** What is offered while typing. */
  list?: string[]
}>()
const emit = defineEmits<{ save: [text: string, base: string] }>()
const fresh = useFresh(() => props.name)
/** What is typed and not saved yet: it outlives the page. */
const draft = useDraft(() => fieldDraft(props.name))
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
function keys(event: KeyboardEvent): void {
  if (event.key === 'Escape') giveUp()
  if (event.key === 'Enter' && (!props.long || event.ctrlKey)) leave()
}
</script>

<template>
  <component
    :is="list ? SuggestEntry : TextEntry"
    :id="`f-${name}`"
    v-model="text"
    :label="label"
    :long="list ? undefined : long"
    :disabled="disabled"
    :max="max ?? (long ? 4000 : 140)"
    :problem="problem"
    :hint="hint"
    :offers="list"
    @focusin="fresh.seen"
    @blur="leave"
    @keydown="keys"
  >
    <template #mark><FreshMark :by="fresh.by.value" /></template>
    <template v-if="taken" #below><NButton text type="primary" class="link" @click="bringBack">Bring back what you typed</NButton></template>
  </component>
</template>
