<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { ref, watch } from 'vue'
import { noteAsset } from '#contract/assets'
import { call, CallProblem } from '#web/kit'
import type { Choice } from '#web/kit'

/** What the caller speaks of is in no register: it is entered by its name or its tag, where it stands, without leaving the call. */
const props = defineProps<{ text: string; placeId: number | null }>()
const emit = defineEmits<{ noted: [Choice]; leave: [] }>()
const problem = ref<CallProblem | null>(null)
const busy = ref(false)
watch(
  () => props.text,
  () => (problem.value = null),
)
const taken = () => problem.value?.reasons.find((reason) => reason.record)

async function note(as: 'name' | 'tag'): Promise<void> {
  if (busy.value || !props.placeId) return
  busy.value = true
  problem.value = null
  try {
    const made = await call(noteAsset, { placeId: props.placeId, [as]: props.text })
    emit('noted', { value: made.id, label: [made.tag, made.name === made.tag ? '' : made.name].filter(Boolean).join(' ') })
  } catch (error) {
    if (!(error instanceof CallProblem)) throw error
    problem.value = error
  } finally {
    busy.value = false
  }
}
function take(): void {
  const { record } = taken()!
  emit('noted', { value: record!.id, label: props.text })
}
</script>

<template>
  <div class="note" role="group" aria-label="Not in the register">
    <p>“{{ text }}” is in no register.<template v-if="!placeId"> Say where it stands, then it can be entered.</template></p>
    <p v-if="problem" class="problem" role="alert">{{ problem.reasons[0]?.sentence ?? problem.message }}</p>
    <p class="acts">
      <NButton v-if="taken()" size="small" type="primary" @click="take">Take that one</NButton>
      <template v-else-if="placeId">
        <NButton size="small" :disabled="busy" @click="note('name')">Enter it by this name</NButton>
        <NButton size="small" :disabled="busy" @click="note('tag')">It is its tag</NButton>
      </template>
      <NButton size="small" @click="emit('leave')">Leave it out</NButton>
    </p>
  </div>
</template>

<style scoped>
.note {
  display: grid;
  gap: 4px;
  font-size: 13px;
  padding: 8px 10px;
  background: var(--shoal-faint);
  border-radius: 6px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.problem {
  color: var(--buoy);
}
</style>
