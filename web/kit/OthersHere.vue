<script setup lang="ts">
import { computed } from 'vue'
import { usePresence } from './presence'

/** Who else has this Sheet open now. */
const props = defineProps<{ type: 'request' | 'order'; id: number }>()
const others = usePresence(props.type, props.id)
const names = computed(() => {
  const list = others.value.map((one) => one.name)
  return list.length > 1 ? `${list.slice(0, -1).join(', ')} and ${list.at(-1)}` : (list[0] ?? '')
})
</script>

<template>
  <p v-if="names" class="here" role="status">{{ names }} {{ others.length > 1 ? 'have' : 'has' }} this open too.</p>
</template>

<style scoped>
.here {
  justify-self: start;
  padding: 1px 8px;
  border-left: 3px solid var(--tide);
  background: var(--shoal);
  border-radius: 0 6px 6px 0;
  font-size: 13px;
}
</style>
