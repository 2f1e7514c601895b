<script setup lang="ts">
import { ref, watch } from 'vue'
import { FreshMark, useFresh } from '#web/kit'

/** An amount typed as people write it, kept in minor units. */
const props = defineProps<{ name: string; label: string; value: number | null; disabled?: boolean; problem?: string }>()
const emit = defineEmits<{ save: [amount: number | null, base: number | null] }>()
const fresh = useFresh(() => props.name)
const shown = (value: number | null) => (value === null ? '' : (value / 100).toFixed(2))
const text = ref(shown(props.value))
const wrong = ref('')
let base = text.value
watch(
  () => props.value,
  (now) => {
    if (text.value === base) text.value = base = shown(now)
  },
)

function leave(): void {
  const plain = text.value.replace(/[\s,]/g, '')
  if (!/^\d*(\.\d{1,2})?$/.test(plain)) {
    wrong.value = 'Write an amount like 1250.00.'
    return
  }
  wrong.value = ''
  const [whole = '', cents = ''] = plain.split('.')
  const minor = plain === '' ? null : Number(whole || '0') * 100 + Number(cents.padEnd(2, '0') || '0')
  const began = base === '' ? null : Math.round(Number(base) * 100)
  if (minor === began) return
  emit('save', minor, began)
  text.value = base = shown(minor)
}
</script>

<template>
  <div class="field" @focusin="fresh.seen">
    <label :for="`f-${name}`">{{ label }}<FreshMark :by="fresh.by.value" /></label>
    <input
      :id="`f-${name}`"
      v-model="text"
      class="entry mono"
      inputmode="decimal"
      :disabled="disabled"
      :aria-invalid="!!(wrong || problem)"
      @blur="leave"
      @keydown.enter="leave"
    />
    <p v-if="wrong || problem" class="problem">{{ wrong || problem }}</p>
  </div>
</template>
