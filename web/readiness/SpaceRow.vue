<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { nextTick, ref } from 'vue'
import { sayReadiness } from '#contract/readiness'
import type { ReadySpace } from '#contract/readiness'
import { counted } from '#core/kit'
import { READINESS, READINESS_NAMES } from '#core/readiness'
import type { Readiness } from '#core/readiness'
import { call, CallProblem, shortTime, spanTime, TextEntry, useUndo } from '#web/kit'

/** One space: how it stands, who said so and when, and the three things that can be said of it. */
const props = defineProps<{ space: ReadySpace }>()
const emit = defineEmits<{ said: [] }>()
const undo = useUndo()
const busy = ref(false)
const wrong = ref('')
const asking = ref(false)
const note = ref('')

async function say(state: Readiness, words = ''): Promise<void> {
  if (state === 'out_of_use' && !words) {
    asking.value = true
    await nextTick()
    document.getElementById(`why-${props.space.id}`)?.focus()
    return
  }
  busy.value = true
  wrong.value = ''
  const { id, code, version, state: before, note: noteBefore } = props.space
  try {
    const now = await call(sayReadiness, { id, version, state, ...(words ? { note: words } : {}) })
    asking.value = false
    const back =
      before && (() => call(sayReadiness, { id, version: now.version, state: before, ...(noteBefore ? { note: noteBefore } : {}) }).then(() => emit('said')))
    undo.say(`${code}: ${READINESS_NAMES[state].toLowerCase()}.`, back ?? undefined)
    emit('said')
  } catch (error) {
    if (!(error instanceof CallProblem)) throw error
    wrong.value =
      error.problem.status === 409
        ? 'Somebody else said something just now; it stands here. Say it again if it is still so.'
        : (error.reasons[0]?.sentence ?? error.message)
    if (error.problem.status === 409) emit('said')
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <li class="card space" :aria-label="`${space.code} ${space.name}`">
    <div class="line">
      <strong class="mono">{{ space.code }}</strong> <span>{{ space.name }}</span>
      <span v-if="space.openOrders" class="soft">{{ counted(space.openOrders, 'open order') }}</span>
    </div>
    <div class="three" role="group" :aria-label="`How ${space.code} stands`">
      <NButton v-for="state in READINESS" :key="state" :aria-pressed="space.state === state" :disabled="busy" @click="say(state)">{{
        READINESS_NAMES[state]
      }}</NButton>
    </div>
    <form v-if="asking" class="why" @submit.prevent="say('out_of_use', note.trim())" @keydown.esc.stop="asking = false">
      <TextEntry :id="`why-${space.id}`" v-model="note" label="Why it is out of use" :max="200" />
      <div class="states">
        <NButton type="primary" attr-type="submit" :disabled="busy || !note.trim()">Out of use</NButton>
        <NButton @click="asking = false">Leave it</NButton>
      </div>
    </form>
    <p v-if="space.closed">
      <strong>{{ space.closed.now ? 'Out of use' : 'Will be out of use' }}</strong> {{ spanTime(space.closed.from, space.closed.until) }} for
      <span class="mono">{{ space.closed.orderNumber }}</span>: {{ space.closed.reason }}
    </p>
    <p v-if="space.by" class="soft">{{ space.by }}, {{ shortTime(space.at!) }}{{ space.note ? `: ${space.note}` : '' }}</p>
    <p v-else class="soft">Nobody has said yet.</p>
    <p v-if="wrong" class="problem" role="alert">{{ wrong }}</p>
  </li>
</template>

<style scoped>
.space {
  display: grid;
  gap: 8px;
}
.space p {
  margin: 0;
}
.line,
.states {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 10px;
  align-items: baseline;
}
.three {
  display: grid;
  grid-template-columns: 2fr 3fr 2.4fr;
  gap: 6px;
}
.three > * {
  --n-padding: 0 4px !important;
}
.why {
  display: grid;
  gap: 8px;
}
</style>
