<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { ref } from 'vue'
import { keepAsMethod } from '#contract/methods'
import { call, freshKey, TextEntry, usePortrait, useFirstField } from '#web/kit'
import { useLineAct } from '#web/sheets'

/** What went well is kept as a method: under a code and a name; where it fits is said on its Portrait, which opens. */
const props = defineProps<{ orderId: number }>()
const emit = defineEmits<{ leave: [] }>()
const portrait = usePortrait()
const code = ref('')
const name = ref('')
const key = freshKey()
const { act, at, busy } = useLineAct<{ id: number }>(({ id }) => {
  emit('leave')
  portrait.open({ register: 'methods', id })
})
const keep = () =>
  act(() => call(keepAsMethod, { orderId: props.orderId, code: code.value.trim(), name: name.value.trim() }, { key }), 'The method is made. Say where it fits.')
const form = ref<HTMLElement | null>(null)
useFirstField(form)
</script>

<template>
  <form ref="form" class="form" aria-label="Make a method of it" @submit.prevent="keep" @keydown.ctrl.enter.prevent="keep" @keydown.esc.stop="emit('leave')">
    <TextEntry id="keep-code" v-model="code" label="Code" mono :max="16" :problem="at('code')" />
    <TextEntry id="keep-name" v-model="name" class="name" label="Name" :max="120" :problem="at('name')" />
    <NButton type="primary" attr-type="submit" :disabled="busy || !code.trim() || !name.trim()">Make the method</NButton>
    <NButton @click="emit('leave')">Leave it</NButton>
  </form>
</template>

<style scoped>
.form {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: end;
  background: var(--shoal-faint);
  border-radius: 6px;
  padding: 10px 12px;
  margin-top: 8px;
}
.name {
  flex: 1 1 220px;
}
</style>
