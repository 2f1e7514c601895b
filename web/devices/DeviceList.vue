<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { ref } from 'vue'
import type { DeviceRow } from '#contract/devices'
import { CallProblem, ProblemNote, shortTime, useLoading } from '#web/kit'

/** Devices that carry somebody's jobs along: when each was heard of last, and a way to end one that is lost. */
const props = defineProps<{
  read: () => Promise<{ rows: DeviceRow[] }>
  end: (id: number) => Promise<{ rows: DeviceRow[] }>
}>()
const devices = useLoading(props.read)
void devices.load()
const busy = ref(false)
const wrong = ref('')
async function finish(id: number): Promise<void> {
  busy.value = true
  wrong.value = ''
  try {
    devices.value.value = await props.end(id)
  } catch (error) {
    if (!(error instanceof CallProblem)) throw error
    wrong.value = error.message
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <ProblemNote v-if="devices.problem.value" :problem="devices.problem.value" @retry="devices.load" />
  <template v-else-if="devices.value.value">
    <p v-if="!devices.value.value.rows.length" class="soft label">None. A device is here once Rounds was opened on it.</p>
    <ul v-else class="devices">
      <li v-for="one in devices.value.value.rows" :key="one.id">
        <span>
          {{ one.name }}<br />
          <span class="soft label"
            >heard of <span class="mono">{{ shortTime(one.heardAt) }}</span></span
          >
        </span>
        <span v-if="one.endedAt" class="soft label"
          >ended <span class="mono">{{ shortTime(one.endedAt) }}</span></span
        >
        <NButton v-else size="small" :disabled="busy" :aria-label="`It is lost: end it, ${one.name}`" @click="finish(one.id)">It is lost: end it</NButton>
      </li>
    </ul>
    <p v-if="devices.value.value.rows.length" class="soft label">
      A device that is ended is signed out at once, and what it keeps cannot be read any more as soon as it has signal, or after fourteen days without. Signing
      in on it brings it back.
    </p>
    <p v-if="wrong" class="problem" role="alert">{{ wrong }}</p>
  </template>
  <div v-else class="bones" />
</template>

<style scoped>
.devices {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: center;
  gap: 8px 16px;
  padding: 8px 0;
  border-bottom: 1px solid var(--line);
}
p {
  margin: 8px 0;
}
.bones {
  height: 60px;
}
</style>
