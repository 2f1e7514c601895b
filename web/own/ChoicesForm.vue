<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { NInput } from 'naive-ui/es/input'
import { ref } from 'vue'
import type { OwnFieldRow } from '#contract/own'
import { DialogBox } from '#web/kit'

/** What can be chosen in a field: called otherwise, added to, taken away where nobody chose it. */
const props = defineProps<{ field: OwnFieldRow; keep: (choices: { key?: string; name: string }[]) => Promise<boolean> }>()
const emit = defineEmits<{ close: [] }>()
const rows = ref<{ key?: string; name: string }[]>(props.field.choices.map((one) => ({ ...one })))
const busy = ref(false)
async function save(): Promise<void> {
  if (busy.value) return
  busy.value = true
  const kept = await props.keep(rows.value.map((one) => ({ ...one, name: one.name.trim() })).filter((one) => one.name))
  busy.value = false
  if (kept) emit('close')
}
</script>

<template>
  <DialogBox :title="field.label" @close="emit('close')">
    <form class="form" @submit.prevent="save" @keydown.ctrl.enter.prevent="save">
      <h1>{{ field.label }}</h1>
      <p class="soft">What was chosen stays chosen when it is called otherwise.</p>
      <p v-for="(row, index) in rows" :key="row.key ?? `new-${index}`" class="row">
        <NInput v-model:value="row.name" :maxlength="80" :input-props="{ 'aria-label': `Choice ${index + 1}` }" />
        <NButton :aria-label="`Take “${row.name}” away`" @click="rows.splice(index, 1)">×</NButton>
      </p>
      <p><NButton @click="rows.push({ name: '' })">One more</NButton></p>
      <p class="acts">
        <NButton type="primary" attr-type="submit" :loading="busy">Keep <kbd>Ctrl Enter</kbd></NButton>
        <NButton @click="emit('close')">Leave it</NButton>
      </p>
    </form>
  </DialogBox>
</template>

<style scoped>
.form {
  display: grid;
  gap: 8px;
}
.row,
.acts {
  display: flex;
  gap: 8px;
}
</style>
