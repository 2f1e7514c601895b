<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { NCheckbox } from 'naive-ui/es/checkbox'
import { computed, ref } from 'vue'
import type { Problem } from '#contract/kit'
import { call, CallProblem } from '#web/kit'
import type { AnyRecord, Kind } from '#contract/portraits'
import { workSays } from './workSays'

/** Asks before a record is retired, with what is still open on it. */
const props = defineProps<{ record: AnyRecord; kind: Kind }>()
const emit = defineEmits<{ retired: [AnyRecord]; close: [] }>()
const open = computed(() => props.record.work.openOrders + props.record.work.openRequests > 0)
const anyway = ref(false)
const refused = ref<Problem | null>(null)
const busy = ref(false)

async function retire(): Promise<void> {
  busy.value = true
  try {
    const { id, version } = props.record
    emit('retired', await call(props.kind.retire, { id, version, ...(anyway.value ? { despiteOpen: true } : {}) }))
  } catch (error) {
    if (!(error instanceof CallProblem)) throw error
    refused.value = error.problem
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <form class="retire" aria-label="Retire" @submit.prevent="retire" @keydown.esc.stop="emit('close')">
    <p>It is not offered any more where something is chosen; its history, and what names it, stay. {{ open ? workSays(record.work) : '' }}</p>
    <NCheckbox v-if="open" v-model:checked="anyway">What is open on it stays open</NCheckbox>
    <p v-for="reason in refused?.reasons ?? []" :key="reason.code" class="wrong" role="alert">{{ reason.sentence }}</p>
    <p v-if="refused && !refused.reasons?.length" class="wrong" role="alert">{{ refused.detail }}</p>
    <p class="buttons">
      <NButton type="primary" size="small" attr-type="submit" :loading="busy" :disabled="open && !anyway">Retire it</NButton>
      <NButton size="small" @click="emit('close')">Leave it in use</NButton>
    </p>
  </form>
</template>

<style scoped>
.retire {
  display: grid;
  gap: 8px;
  padding: 10px 12px;
  background: var(--shoal-faint);
  border-radius: 6px;
}
.buttons {
  display: flex;
  gap: 8px;
}
</style>
