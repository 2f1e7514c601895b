<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { ref } from 'vue'
import { ChoiceEntry, TextEntry, useDraft } from '#web/kit'

defineProps<{ choices: { value: string; label: string }[] }>()
const emit = defineEmits<{ save: [string, string]; leave: [] }>()
const priority = ref('urgent')
const reason = useDraft(() => `override-${location.pathname}`)
</script>

<template>
  <form class="override" @submit.prevent="emit('save', priority, reason)" @keydown.ctrl.enter.prevent="emit('save', priority, reason)">
    <ChoiceEntry id="override-priority" v-model="priority" label="Priority" :options="choices" />
    <TextEntry id="override-reason" v-model="reason" label="Why not what the rule gives (needed)" :max="200" class="grow" required />
    <NButton type="primary" attr-type="submit">Set it</NButton>
    <NButton @click="emit('leave')">Leave it</NButton>
  </form>
</template>

<style scoped>
.override {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: end;
}
.grow {
  flex: 1 1 220px;
}
</style>
