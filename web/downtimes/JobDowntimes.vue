<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, ref, watch } from 'vue'
import type { JobDowntime } from '#contract/field'
import type { FieldActs } from '#core/field'
import { freshKey, serverNow, shortTime } from '#web/kit'
import type { CallProblem } from '#web/kit'
import DowntimeForm from './DowntimeForm.vue'

/** Whether the asset can be used, for whoever stands before it. */
type Shown = Omit<JobDowntime, 'who'>
const props = defineProps<{ downtimes: readonly Shown[]; asset: string; over: boolean; busy: boolean; problem: CallProblem | null }>()
const emit = defineEmits<{ say: [input: FieldActs['downtime']] }>()
const open = ref(false)
const lasting = computed(() => props.downtimes.find(({ untilAt }) => untilAt === null))
const past = computed(() => props.downtimes.filter(({ untilAt }) => untilAt !== null))
// Once it stands as it was said, the form is done.
watch(
  () => props.downtimes.length,
  () => (open.value = false),
)
const back = ({ mark, fromAt, reason }: Shown) => emit('say', { mark, fromAt, untilAt: serverNow().toISOString(), ...(reason ? { reason } : {}) })
</script>

<template>
  <section class="card" aria-label="Downtime">
    <h2>Downtime</h2>
    <p v-for="one in past" :key="one.mark" class="label">
      {{ shortTime(one.fromAt) }} to {{ shortTime(one.untilAt!) }}<template v-if="one.reason">: {{ one.reason }}</template>
    </p>
    <template v-if="lasting">
      <p>
        <strong>{{ asset }} cannot be used</strong> since {{ shortTime(lasting.fromAt) }}<template v-if="lasting.reason">: {{ lasting.reason }}</template>
      </p>
      <NButton v-if="!over" :disabled="busy" @click="back(lasting)">It can be used again</NButton>
    </template>
    <DowntimeForm
      v-else-if="open"
      :busy="busy"
      :problem-at="(field) => problem?.at(field)"
      @say="(period) => emit('say', { mark: freshKey(), ...period })"
      @leave="open = false"
    />
    <template v-else>
      <p v-if="!past.length" class="label">{{ asset }} can be used, as far as is written down.</p>
      <NButton v-if="!over" :disabled="busy" @click="open = true">It cannot be used</NButton>
    </template>
  </section>
</template>

<style scoped>
p {
  margin: 0;
}
</style>
