<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { NInput } from 'naive-ui/es/input'
import { ref } from 'vue'

/** A secret address to be copied into a calendar program. */
const props = defineProps<{ id: string; address: string }>()
const copied = ref('')
async function copy(): Promise<void> {
  copied.value = await navigator.clipboard.writeText(props.address).then(
    () => 'Copied.',
    () => 'It could not be copied: select it and copy it by hand.',
  )
}
</script>

<template>
  <div class="address">
    <NInput readonly size="small" class="mono" :value="address" :input-props="{ id, 'aria-label': 'Address for the calendar program' }" />
    <NButton size="small" @click="copy">Copy</NButton>
  </div>
  <p v-if="copied" class="soft" role="status">{{ copied }}</p>
</template>

<style scoped>
.address {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 8px;
}
p {
  margin: 2px 0 0;
}
</style>
