<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { ref } from 'vue'
import { DialogBox, TextEntry } from '#web/kit'

/** What speaks against something, and why it is done all the same. */
defineProps<{ conflicts: readonly string[]; problem: string; busy: boolean }>()
const emit = defineEmits<{ leave: []; done: [string] }>()
const reason = ref('')
const missing = ref('')
function send(): void {
  const said = reason.value.trim()
  missing.value = said ? '' : 'Say why, or leave it as it was.'
  if (said) emit('done', said)
}
</script>

<template>
  <DialogBox title="All the same" @close="emit('leave')">
    <form @submit.prevent="send">
      <h2>This speaks against it</h2>
      <ul>
        <li v-for="sentence in conflicts" :key="sentence">{{ sentence }}</li>
      </ul>
      <TextEntry id="despite" v-model="reason" label="Why it is done all the same" :max="300" :problem="missing || problem || null" />
      <p class="soft">It is kept on the timeline of the order.</p>
      <p class="do">
        <NButton type="primary" attr-type="submit" :loading="busy">Do it all the same</NButton>
        <NButton @click="emit('leave')">Leave it as it was</NButton>
      </p>
    </form>
  </DialogBox>
</template>

<style scoped>
h2 {
  font-size: 17px;
  margin: 0 0 8px;
}
ul {
  margin: 0 0 12px;
  padding-left: 18px;
}
.do {
  display: flex;
  gap: 8px;
  margin: 12px 0 0;
}
</style>
