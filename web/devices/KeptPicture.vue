<script setup lang="ts">
import { onUnmounted, ref, watch } from 'vue'
import { useCarrying } from './carrying'

/** A picture that may lie on the device: one of the server’s, or one that waits to be sent. */
const props = defineProps<{ url: string; fileId?: string; alt: string }>()
const carrying = useCarrying()
const shown = ref('')
const missing = ref(false)
const made: string[] = []
async function read(): Promise<void> {
  if (!carrying.device) return void (shown.value = props.url)
  const blob = await (props.fileId ? carrying.ownFile(props.fileId) : carrying.blob(props.url)).catch(() => null)
  missing.value = !blob
  if (!blob) return
  made.push((shown.value = URL.createObjectURL(blob)))
}
watch(() => [props.url, props.fileId, carrying.device], read, { immediate: true })
onUnmounted(() => made.forEach((url) => URL.revokeObjectURL(url)))
</script>

<template>
  <img v-if="shown" :src="shown" :alt="fileId ? `${alt}, not sent yet` : alt" :class="{ waits: fileId }" />
  <span v-else-if="missing" class="label">{{ alt }} is shown when there is signal.</span>
</template>

<style scoped>
.waits {
  border-style: dashed !important;
}
</style>
