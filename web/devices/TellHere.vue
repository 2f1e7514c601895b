<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { ref } from 'vue'
import { useCarrying } from './carrying'
import { beTold, tellingHere, tellNoMore } from './tellHere'
import type { Telling } from './tellHere'

/** Whether this phone tells of new and changed jobs while Rounds is not open; nothing where it cannot. */
const stands = ref<Telling>('never')
const said = ref('')
const busy = ref(false)
void tellingHere().then((now) => (stands.value = now))
async function turn(): Promise<void> {
  busy.value = true
  try {
    if (stands.value === 'on') {
      await tellNoMore()
      stands.value = 'off'
      said.value = 'Nothing is told on this phone any more; mail comes as before.'
    } else {
      const { on, sentence } = await beTold(await useCarrying().device?.box.ident(() => ''))
      stands.value = on ? 'on' : 'off'
      said.value = sentence
    }
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <div v-if="stands !== 'never'" class="tell">
    <NButton text type="primary" :disabled="busy" @click="turn">{{
      stands === 'on' ? 'Tell me nothing on this phone' : 'Tell me of new jobs on this phone'
    }}</NButton>
    <p v-if="said" class="label" role="status">{{ said }}</p>
  </div>
</template>

<style scoped>
.tell {
  display: grid;
  gap: 4px;
  justify-items: start;
}
p {
  margin: 0;
}
</style>
