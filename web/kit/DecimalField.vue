<script setup lang="ts">
import { ref, watch } from 'vue'
import TextEntry from './TextEntry.vue'
import { couldBeEither, readTyped, writtenAs } from './writing'
import type { DecimalKind } from './writing'

/**
 * A number typed as people write it: money, a percentage, a quantity. Shown back as it was understood as
 * soon as the field is left; what cannot be read stays as typed, with the reason.
 */
const props = defineProps<{
  id: string
  label: string
  labelHidden?: boolean
  kind: DecimalKind
  value: number | string | null
  disabled?: boolean
  required?: boolean
  /** Whether less than nought can be meant. */
  signed?: boolean
  problem?: string
}>()
const emit = defineEmits<{ save: [value: number | string | null, base: number | string | null] }>()
const text = ref(writtenAs(props.kind, props.value))
const wrong = ref('')
const understood = ref('')
let base = text.value
let baseValue = props.value
watch(
  () => props.value,
  (now) => {
    if (text.value !== base) return
    text.value = base = writtenAs(props.kind, now)
    baseValue = now
  },
)

/** Reads what is there; false when it cannot be read. */
function leave(): boolean {
  const read = readTyped(props.kind, text.value)
  const problem =
    read.problem ?? (read.value === null && props.required ? 'This is needed.' : !props.signed && Number(read.value) < 0 ? 'Write nought or more.' : undefined)
  if (problem !== undefined || read.problem !== undefined) {
    wrong.value = problem!
    understood.value = ''
    return false
  }
  wrong.value = ''
  const shown = writtenAs(props.kind, read.value)
  understood.value = couldBeEither(text.value) ? `Read as ${shown}.` : ''
  const before = baseValue
  text.value = base = shown
  baseValue = read.value
  if (read.value !== before) emit('save', read.value, before)
  return true
}
defineExpose({ leave })
</script>

<template>
  <TextEntry
    :id="id"
    v-model="text"
    mono
    :label="label"
    :label-hidden="labelHidden"
    inputmode="decimal"
    autocomplete="off"
    :disabled="disabled"
    :problem="wrong || problem"
    @blur="leave"
    @keydown.enter="leave"
  >
    <template #mark><slot name="mark" /></template>
    <template v-if="understood && !wrong && !problem" #below
      ><p :id="`${id}-says`" role="status">{{ understood }}</p></template
    >
  </TextEntry>
</template>
