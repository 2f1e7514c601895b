<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed } from 'vue'
import { shortTime, useNow } from '#web/kit'

/** Whoever works alone says every so often that they are all right; otherwise the desk looks for them. */
const props = defineProps<{ alone: { everyMinutes: number; dueAt: string | null }; away: boolean; busy: boolean }>()
const emit = defineEmits<{ checkIn: [] }>()
const now = useNow()
const isDue = computed(() => props.alone.dueAt !== null && new Date(props.alone.dueAt).getTime() - now.value < 5 * 60_000)
</script>

<template>
  <section class="card" :class="{ due: isDue }" aria-label="Working alone">
    <h2>Working alone</h2>
    <p v-if="!alone.dueAt">Every {{ alone.everyMinutes }} minutes say that you are all right, from when you start to work.</p>
    <template v-else>
      <p :role="isDue ? 'alert' : undefined">
        Say by <strong class="mono">{{ shortTime(alone.dueAt) }}</strong> that you are all right; otherwise the desk looks for you.
      </p>
      <NButton type="primary" :disabled="busy" @click="emit('checkIn')">I am all right</NButton>
      <p v-if="away" class="problem">Without signal the desk does not hear of it. Call them before you go on.</p>
    </template>
    <slot />
  </section>
</template>

<style scoped>
p {
  margin: 0;
}
.due {
  border-left: 6px solid var(--buoy);
}
</style>
