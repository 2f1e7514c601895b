<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { ref } from 'vue'
import { fromLocalField, MomentEntryLater, serverNow, TextEntry, toLocalField } from '#web/kit'

/** Since when something cannot be used; until when, where it is back already. */
defineProps<{ busy: boolean; problemAt: (field: string) => string | undefined }>()
const emit = defineEmits<{ say: [period: { fromAt: string; untilAt?: string; reason?: string }]; leave: [] }>()
const from = ref(toLocalField(serverNow()))
const until = ref('')
const reason = ref('')
const instant = (local: string) => fromLocalField(local).toISOString()
function say(): void {
  emit('say', {
    // What is now by the minute may not have begun by the second.
    fromAt: from.value === toLocalField(serverNow()) ? serverNow().toISOString() : instant(from.value),
    ...(until.value ? { untilAt: instant(until.value) } : {}),
    ...(reason.value.trim() ? { reason: reason.value.trim() } : {}),
  })
}
</script>

<template>
  <form class="downtime" aria-label="It cannot be used" @submit.prevent="say" @keydown.esc.stop="emit('leave')">
    <MomentEntryLater id="down-from" v-model="from" label="Since when" required :problem="problemAt('fromAt')" />
    <MomentEntryLater id="down-until" v-model="until" label="Until, if it is back" :problem="problemAt('untilAt')" />
    <TextEntry id="down-why" v-model="reason" label="Why, if that is known" :max="200" />
    <div class="acts">
      <NButton type="primary" attr-type="submit" :disabled="busy || !from">Write it down</NButton>
      <NButton @click="emit('leave')">Leave it</NButton>
    </div>
  </form>
</template>

<style scoped>
.downtime {
  display: grid;
  gap: 8px;
  max-width: 460px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
</style>
