<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { ref } from 'vue'
import { readKeptMail, readKeptMailFile, readRawMail } from '#contract/requests'
import { address, call, ProblemNote, useLoading } from '#web/kit'

/** All of a mail that came in, opened on demand: its text, what was folded in it, its files, and the mail as it came. */
const props = defineProps<{ id: number; label: string }>()
const open = ref(false)
const mail = useLoading(() => call(readKeptMail, { id: props.id }))
const size = (bytes: number) => (bytes < 1_000_000 ? `${Math.max(1, Math.round(bytes / 1000))} kB` : `${(bytes / 1_000_000).toFixed(1)} MB`)
function toggle(): void {
  open.value = !open.value
  if (open.value && !mail.value.value) void mail.load()
}
</script>

<template>
  <div class="whole">
    <NButton :aria-expanded="open" @click="toggle">{{ open ? 'Close the mail' : label }}</NButton>
    <template v-if="open">
      <ProblemNote v-if="mail.problem.value" :problem="mail.problem.value" @retry="mail.load" />
      <div v-else-if="mail.value.value" class="mail">
        <p class="soft">From {{ mail.value.value.sender || 'nobody' }}: {{ mail.value.value.subject ?? 'no subject' }}</p>
        <p v-if="mail.value.value.leftOut" class="left">{{ mail.value.value.leftOut }}</p>
        <p class="text">{{ mail.value.value.text || 'There is no text in it.' }}</p>
        <ul v-if="mail.value.value.files.length">
          <li v-for="file in mail.value.value.files" :key="file.index">
            <a :href="address(readKeptMailFile, { id, index: file.index })">{{ file.name }}</a> <span class="soft">{{ size(file.bytes) }}</span>
          </li>
        </ul>
        <p>
          <a :href="address(readRawMail, { id })">The mail as it came</a> <span class="soft">{{ size(mail.value.value.bytes) }}</span>
        </p>
      </div>
      <span v-else class="bones" role="status" aria-label="Loading" />
    </template>
  </div>
</template>

<style scoped>
.whole,
.mail {
  display: grid;
  gap: 8px;
  justify-items: start;
  min-width: 0;
}
.mail {
  padding: 8px 12px;
  border-left: 4px solid var(--line-strong);
  background: var(--paper);
  width: 100%;
}
.text {
  white-space: pre-wrap;
  overflow-wrap: anywhere;
  max-height: 320px;
  overflow: auto;
  width: 100%;
}
.left {
  color: var(--buoy);
}
ul {
  margin: 0;
  padding-left: 18px;
}
</style>
