<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { NRadio, NRadioGroup } from 'naive-ui/es/radio'
import { computed, ref } from 'vue'
import { chooseTime, readTimes, sayNoneFits } from '#contract/windows'
import type { TimesPage } from '#contract/windows'
import { call, CallProblem, freshKey, ProblemNote, showTimesOf, spanTime, TextEntry, useDraft, useLoading } from '#web/kit'

/** Choosing when somebody may come, by one’s own link: on a page of its own, or on that of the request. */
const props = defineProps<{ token: string }>()
const emit = defineEmits<{ read: [TimesPage] }>()
const page = useLoading(async () => {
  const now = await call(readTimes, { token: props.token })
  showTimesOf(now.site)
  emit('read', now)
  return now
})
void page.load()
const it = computed(() => page.value.value)
const chosen = ref<string | null>(null)
const mode = ref<'choose' | 'none' | null>(null)
const note = useDraft(() => `times-${props.token.slice(-16)}`)
const busy = ref(false)
const wrong = ref('')
let key = freshKey()

const answered = computed(() => it.value && (it.value.state === 'chosen' || it.value.state === 'none_fits'))
const asks = computed(() => it.value && !it.value.over && (!answered.value || mode.value))

async function send(): Promise<void> {
  busy.value = true
  wrong.value = ''
  try {
    const said = note.value.trim()
    page.value.value =
      mode.value === 'none'
        ? await call(sayNoneFits, { token: props.token, note: said }, { key })
        : await call(chooseTime, { token: props.token, from: chosen.value!, note: said }, { key })
    note.value = ''
    mode.value = null
  } catch (error) {
    if (!(error instanceof CallProblem)) throw error
    wrong.value = error.reasons[0]?.sentence ?? error.message
    key = freshKey()
    // What was taken back or has passed meanwhile is shown as it is now.
    await page.load()
  } finally {
    busy.value = false
  }
}
function change(): void {
  mode.value = 'choose'
  chosen.value = it.value?.chosen?.from ?? null
  key = freshKey()
}
</script>

<template>
  <section class="card" aria-label="When we may come">
    <ProblemNote v-if="page.problem.value && !it" :problem="page.problem.value" @retry="page.load" />
    <template v-else-if="it">
      <h2>When can somebody let us in?</h2>
      <p v-if="it.note" class="text">{{ it.note }}</p>
      <p v-if="it.state === 'chosen' && it.chosen && mode !== 'choose'" class="standing" role="status">
        You chose <strong>{{ spanTime(it.chosen.from, it.chosen.until) }}</strong>.
      </p>
      <p v-else-if="it.state === 'none_fits' && !mode" class="standing" role="status">You told us that none of the times fits. The desk has your answer.</p>
      <p v-if="it.over" class="label">{{ it.over }}</p>
      <p v-if="wrong" class="problem" role="alert">{{ wrong }}</p>
      <form v-if="asks" @submit.prevent="send">
        <NRadioGroup v-if="mode !== 'none'" v-model:value="chosen" name="time" class="times" aria-label="Times offered" @update:value="mode = 'choose'">
          <NRadio v-for="time in it.times" :key="time.from" :value="time.from" :disabled="time.gone" class="time">
            {{ spanTime(time.from, time.until) }}<span v-if="time.gone" class="label">, has passed</span>
          </NRadio>
        </NRadioGroup>
        <TextEntry
          v-if="mode"
          id="times-note"
          v-model="note"
          :label="mode === 'none' ? 'When would it suit you?' : 'Anything we should know to get in? Not needed.'"
          :max="300"
        />
        <div class="acts">
          <NButton
            v-if="mode !== 'none'"
            type="primary"
            attr-type="submit"
            :disabled="busy || !chosen || !it.times.some((time) => time.from === chosen && !time.gone)"
            >Choose this time</NButton
          >
          <NButton v-else type="primary" attr-type="submit" :disabled="busy || !note.trim()">Tell the desk</NButton>
          <NButton v-if="mode !== 'none'" @click="mode = 'none'">None of them fits</NButton>
          <NButton v-if="mode === 'none'" @click="mode = null">Back to the times</NButton>
          <NButton v-else-if="mode && answered" @click="mode = null">Leave it as it is</NButton>
        </div>
      </form>
      <NButton v-else-if="!it.over" @click="change">{{ it.state === 'chosen' ? 'Choose another time' : 'Choose one after all' }}</NButton>
    </template>
    <div v-else class="bones wait" />
  </section>
</template>

<style scoped>
.standing {
  padding: 10px 14px;
  border-left: 6px solid var(--tide);
  background: var(--shoal-faint);
}
.times {
  display: grid;
  gap: 4px;
}
.time {
  min-height: 44px;
  align-items: center;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-top: 10px;
}
</style>
