<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { ref } from 'vue'
import { renewPass } from '#contract/vendors'
import { call, CallProblem } from '#web/kit'

/** The link has ended: another one goes to the address of the vendor. */
const props = defineProps<{ token: string }>()
const said = ref('')
const wrong = ref('')
const busy = ref(false)
async function ask(): Promise<void> {
  busy.value = true
  wrong.value = ''
  try {
    const { sentTo } = await call(renewPass, { token: props.token })
    said.value = `A new link is on its way to ${sentTo}.`
  } catch (error) {
    if (!(error instanceof CallProblem)) throw error
    wrong.value = error.reasons[0]?.sentence ?? error.message
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <section class="card" aria-label="A new link">
    <h2>Has the link ended?</h2>
    <p>Links to a job end two weeks after it. If yours has, a new one is mailed to the address the desk has of you.</p>
    <p v-if="said" role="status">{{ said }}</p>
    <NButton v-else type="primary" :disabled="busy" @click="ask">Send a new link</NButton>
    <p v-if="wrong" class="problem" role="alert">{{ wrong }}</p>
  </section>
</template>

<style scoped>
p {
  margin: 0;
}
</style>
