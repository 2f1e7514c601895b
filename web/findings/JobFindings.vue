<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, defineAsyncComponent, ref } from 'vue'
import type { JobFinding } from '#contract/field'
import { readSurroundings } from '#contract/findings'
import { readAttachment } from '#contract/orders'
import { FINDING_STATE_NAMES } from '#core/findings'
import { KeptPicture, useCarried } from '#web/devices'
import { address, shortTime } from '#web/kit'
import SeverityMark from './SeverityMark.vue'

/** What was found on this job, or what it is to put right, on the phone. */
const props = defineProps<{ visitId: number; title: string; findings: readonly JobFinding[]; busy: boolean }>()
defineEmits<{ takeBack: [finding: JobFinding] }>()
const PinDialog = defineAsyncComponent(() => import('./PinDialog.vue'))
const around = useCarried(readSurroundings, { visitId: props.visitId })
const shown = ref<JobFinding | null>(null)
async function show(finding: JobFinding): Promise<void> {
  await around.load()
  shown.value = finding
}
const floors = computed(() => around.value.value?.floors.filter(({ id }) => id === shown.value?.pin?.planId) ?? [])
</script>

<template>
  <section class="card" :aria-label="title">
    <h2>{{ title }}</h2>
    <ul>
      <li v-for="one in findings" :key="one.mark">
        <p class="text"><SeverityMark :severity="one.severity" /> {{ one.text }}</p>
        <p class="label">{{ [one.where, one.who, shortTime(one.at)].filter(Boolean).join(' · ') }}<br />{{ FINDING_STATE_NAMES[one.state] }}</p>
        <div v-if="one.photos.length" class="thumbs">
          <KeptPicture
            v-for="(photo, index) in one.photos"
            :key="photo.id"
            :url="address(readAttachment, { id: photo.id })"
            :file-id="photo.fileId"
            :alt="`Photo ${index + 1} of ${one.text.slice(0, 40)}`"
          />
        </div>
        <div v-if="one.pin || one.mayTakeBack" class="acts">
          <NButton v-if="one.pin" text type="primary" :aria-label="`On the plan: ${one.text.slice(0, 60)}`" @click="show(one)">On the plan</NButton>
          <NButton
            v-if="one.mayTakeBack"
            text
            type="primary"
            :disabled="busy"
            :aria-label="`Take it back: ${one.text.slice(0, 60)}`"
            @click="$emit('takeBack', one)"
            >Take it back</NButton
          >
        </div>
      </li>
    </ul>
    <PinDialog v-if="shown" :floors="floors" :pin="shown.pin" fixed @close="shown = null" />
  </section>
</template>

<style scoped>
ul {
  margin: 0;
  padding: 0;
  list-style: none;
  display: grid;
  gap: 12px;
}
li {
  display: grid;
  gap: 6px;
}
li + li {
  border-top: 1px solid var(--line);
  padding-top: 12px;
}
p {
  margin: 0;
}
.acts {
  display: flex;
  gap: 20px;
  min-height: 32px;
}
</style>
