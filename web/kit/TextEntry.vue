<script setup lang="ts">
import { NInput } from 'naive-ui/es/input'
import { computed, ref, useAttrs } from 'vue'
import FieldFrame from './FieldFrame.vue'

/** A line of text, or several, with its label. What else is given goes to where one types. */
defineOptions({ inheritAttrs: false })
const props = defineProps<{
  id: string
  label: string
  labelHidden?: boolean
  long?: boolean
  kind?: 'password' | 'email' | 'search' | 'tel'
  problem?: string | null
  hint?: string
  max?: number
  placeholder?: string
  required?: boolean
  disabled?: boolean
  mono?: boolean
  small?: boolean
}>()
const text = defineModel<string>({ required: true })
const attrs = useAttrs()
const isHeard = (name: string) => /^on[A-Z]/.test(name)
const heard = computed(() => Object.fromEntries(Object.entries(attrs).filter(([name]) => isHeard(name))))
const typed = computed(() => ({
  id: props.id,
  required: props.required,
  'aria-label': props.labelHidden ? props.label : undefined,
  'aria-invalid': !!props.problem,
  'aria-describedby': props.problem || props.hint ? `${props.id}-says` : undefined,
  ...(props.kind && props.kind !== 'password' ? { type: props.kind } : {}),
  ...Object.fromEntries(Object.entries(attrs).filter(([name]) => !isHeard(name) && name !== 'class')),
}))
const input = ref<InstanceType<typeof NInput> | null>(null)
defineExpose({ focus: () => input.value?.focus() })
</script>

<template>
  <FieldFrame :id="id" :class="attrs.class" :label="label" :label-hidden="labelHidden" :problem="problem" :hint="hint">
    <template #mark><slot name="mark" /></template>
    <NInput
      ref="input"
      v-model:value="text"
      :class="{ mono }"
      :type="long ? 'textarea' : kind === 'password' ? 'password' : 'text'"
      :autosize="long ? { minRows: 3, maxRows: 14 } : undefined"
      :maxlength="max"
      :placeholder="placeholder ?? ''"
      :disabled="disabled"
      :size="small ? 'small' : undefined"
      :input-props="typed"
      v-bind="heard"
    />
    <template v-if="$slots.below" #below><slot name="below" /></template>
  </FieldFrame>
</template>
