<script setup lang="ts">
import { useRouter } from 'vue-router'
import { addressOf, usePortrait } from './portrait'
import type { RecordRef } from './portrait'

/** The code or name of a record: pressed, its Portrait opens beside what one is working on; in a new tab it is a page. */
const props = defineProps<{ record: RecordRef; label?: string }>()
const portrait = usePortrait()
const router = useRouter()
function press(event: MouseEvent): void {
  if (event.ctrlKey || event.metaKey || event.shiftKey) return
  event.preventDefault()
  // On its own page one goes from record to record.
  if (router.currentRoute.value.name === 'portrait') void router.push(addressOf(props.record))
  else portrait.open(props.record)
}
</script>

<template>
  <a class="record" :href="addressOf(record)" :aria-label="label" @click.stop="press"><slot /></a>
</template>

<style scoped>
.record {
  color: inherit;
  text-decoration: underline;
  text-decoration-color: var(--line-strong);
  text-underline-offset: 2px;
}
.record:hover {
  color: var(--tide-text);
  text-decoration-color: currentcolor;
}
</style>
