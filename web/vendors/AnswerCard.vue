<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, ref } from 'vue'
import type { PassSheet } from '#contract/vendors'
import { fromLocalField, MomentEntry, NumberEntry, spanTime, TextEntry, toLocalField, vBegins } from '#web/kit'
import type { CallProblem } from '#web/kit'

/** Whether the vendor comes at the time planned: yes, at another time, or not at all. */
const props = defineProps<{ job: PassSheet; busy: boolean; problem: CallProblem | null }>()
const emit = defineEmits<{ accept: []; propose: [{ start: string; end: string; note: string }]; decline: [string] }>()
const doing = ref<'propose' | 'decline' | null>(null)
const minutesOf = ({ start, end }: { start: string; end: string }) => Math.round((new Date(end).getTime() - new Date(start).getTime()) / 60_000)
const planned = computed(() => ({ start: props.job.plannedStart, end: props.job.plannedEnd }))
const start = ref(toLocalField(new Date(props.job.proposed?.start ?? props.job.plannedStart)))
const minutes = ref<number | null>(minutesOf(props.job.proposed ?? planned.value))
const note = ref('')
const why = ref('')
/** What no field of the form in hand says. */
const refused = computed(() => props.problem && (doing.value ? props.problem.apart : (props.problem.reasons[0]?.sentence ?? props.problem.message)))
const time = computed(() => {
  const from = fromLocalField(start.value)
  return Number.isNaN(from.getTime()) || !minutes.value
    ? null
    : { start: from.toISOString(), end: new Date(from.getTime() + minutes.value * 60_000).toISOString() }
})
const propose = () => time.value && emit('propose', { ...time.value, note: note.value.trim() })
</script>

<template>
  <section class="card" aria-label="Whether you come">
    <h2>{{ job.answer === 'accepted' ? 'You come' : 'Can you come?' }}</h2>
    <p class="when">{{ spanTime(job.plannedStart, job.plannedEnd) }}</p>
    <p v-if="job.answer === 'proposed' && job.proposed" class="standing" role="status">
      You proposed <strong>{{ spanTime(job.proposed.start, job.proposed.end) }}</strong>. The desk will answer by mail; until then the time above stands.
    </p>
    <p v-else-if="job.answer === 'accepted'" class="label" role="status">You have accepted. The desk knows.</p>
    <p v-if="refused" class="problem" role="alert">{{ refused }}</p>
    <form v-if="doing === 'propose'" v-begins="'propose'" aria-label="Propose another time" @submit.prevent="propose" @keydown.esc="doing = null">
      <MomentEntry id="propose-start" v-model="start" label="When you could come" :problem="problem?.at('start')" required />
      <NumberEntry id="propose-minutes" v-model="minutes" label="Minutes" :least="15" :most="1440" :step="15" :problem="problem?.at('end')" />
      <TextEntry id="propose-note" v-model="note" label="A line for the desk, if you like" :max="300" :problem="problem?.at('note')" />
      <div class="acts">
        <NButton type="primary" attr-type="submit" :disabled="busy || !time">Propose it</NButton>
        <NButton @click="doing = null">Back</NButton>
      </div>
    </form>
    <form
      v-else-if="doing === 'decline'"
      v-begins="'decline'"
      aria-label="Decline"
      @keydown.esc="doing = null"
      @submit.prevent="why.trim() && emit('decline', why.trim())"
    >
      <TextEntry id="decline-why" v-model="why" label="Why you do not come" :max="300" :problem="problem?.at('note')" required />
      <p class="label">The desk sends somebody else, and this link ends.</p>
      <div class="acts">
        <NButton type="primary" attr-type="submit" :disabled="busy || !why.trim()">Decline the job</NButton>
        <NButton @click="doing = null">Back</NButton>
      </div>
    </form>
    <div v-else class="acts">
      <NButton v-if="job.answer !== 'accepted'" :type="job.answer ? 'default' : 'primary'" :disabled="busy" @click="emit('accept')">{{
        job.answer === 'proposed' ? 'Come as planned after all' : 'Yes, we come then'
      }}</NButton>
      <NButton data-opens="propose" :disabled="busy" @click="doing = 'propose'">Another time</NButton>
      <NButton data-opens="decline" :disabled="busy" @click="doing = 'decline'">We do not come</NButton>
    </div>
  </section>
</template>

<style scoped>
.when {
  font-size: 19px;
  font-weight: 600;
  margin: 0 0 6px;
}
.standing {
  padding: 10px 14px;
  border-left: 6px solid var(--tide);
  background: var(--shoal-faint);
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-top: 10px;
}
form {
  display: grid;
  gap: 10px;
}
</style>
