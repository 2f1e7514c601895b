<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, ref } from 'vue'
import type { OrderStep } from '#contract/methods'
import { readAttachment } from '#contract/orders'
import { FINDING_SEVERITIES, FINDING_SEVERITY_NAMES } from '#core/findings'
import type { FindingSeverity } from '#core/findings'
import { limitsSay, readStep } from '#core/methods'
import { address, CallProblem, ChoiceEntry, FileEntry, ListEntry, shortTime, TextEntry, texts, useUndo } from '#web/kit'
import { AT_ONCE } from './stepActs'
import type { StepActs } from './stepActs'
import StepTag from './StepTag.vue'

/** A step of an order: what is asked, what was found, and the way to say so where one works. */
const props = defineProps<{
  step: OrderStep
  /** What it waits for, while that is open. */
  waitsFor: string | null
  mayDo: boolean
  /** How what is done to it reaches the server; without them, at once. */
  acts?: StepActs
  /** Where its photo is read, by whoever has no account. */
  photoUrl?: (id: number) => string
  /** Somebody works on it now, and may stop over what they found. */
  mayStop?: boolean
}>()
const emit = defineEmits<{ changed: []; stop: [] }>()
const said = useUndo()
const value = ref<string | null>('')
const note = ref('')
const leaving = ref(false)
const problem = ref('')
const busy = ref(false)
const limits = computed(() => (props.step.kind === 'measured' ? limitsSay(props.step) || props.step.unit : ''))
/** Whether it can be done now, by who looks at it. */
const may = computed(() => props.mayDo && props.step.state === 'open' && !props.waitsFor)
/** Whether something is asked besides that it is done. */
const asks = computed(() => may.value && (leaving.value || props.step.kind !== 'plain'))
const isAsked = computed(() => props.step.kind === 'measured' || props.step.kind === 'choice')

async function send(act: () => Promise<unknown>, words: string, back?: () => Promise<unknown>): Promise<boolean> {
  if (busy.value) return false
  busy.value = true
  problem.value = ''
  try {
    await act()
    said.say(words, back && (() => back().then(() => emit('changed'))))
    leaving.value = asking.value = false
    value.value = note.value = ''
    emit('changed')
    return true
  } catch (error) {
    if (!(error instanceof CallProblem)) throw error
    problem.value = error.reasons[0]?.sentence ?? error.message
    return false
  } finally {
    busy.value = false
  }
}
const { id } = props.step
const at = props.acts ?? AT_ONCE
const undo = (version: number) => at.undo(props.step, { id, version })
/** A value outside its limits, of which nobody has said yet what it means. */
const asking = ref(false)
const isOutside = () => {
  const read = readStep(props.step, { value: value.value?.trim().replace(',', '.') ?? null, hasPhoto: true })
  return 'outside' in read && read.outside
}
function again(): void {
  asking.value = false
  value.value = note.value = ''
}
const severity = ref<FindingSeverity>('repair')
/** What was measured is kept, and what is wrong is a finding. */
async function found(): Promise<void> {
  const [wrong, measured] = [note.value.trim(), value.value!.trim().replace(',', '.')]
  if (!(await done())) return
  const { text, unit } = props.step
  // By then another row may stand here: what is emitted from this one would not be heard.
  at.find?.({ text: `${text}: ${measured} ${unit ?? ''}, outside ${limits.value}. ${wrong}`, severity: severity.value, fixedNow: false, stepId: id })
}
/** Besides, how the job is left is asked for. */
function stop(): void {
  emit('stop')
  void found()
}
async function done(leave = false): Promise<boolean> {
  // Whoever holds the gauge is asked; at the desk what was measured is written off a sheet.
  if (props.acts && !leave && !asking.value && isOutside()) {
    asking.value = true
    return false
  }
  const { version } = props.step
  const sent = {
    id,
    version,
    ...(value.value?.trim() ? { value: value.value.trim().replace(',', '.') } : {}),
    ...(note.value.trim() ? { note: note.value.trim() } : {}),
  }
  return send(
    () => at.do(props.step, leave ? { ...sent, leave } : sent),
    leave ? 'The step is left out.' : 'The step is done.',
    () => undo(version + 1),
  )
}
const SEVERITIES = FINDING_SEVERITIES.map((value) => ({ value, label: FINDING_SEVERITY_NAMES[value] }))
const photo = ([file]: File[]) => file && send(() => at.photo(props.step, { id }, file), 'The photo is there.')
</script>

<template>
  <div class="step" :class="{ over: step.state !== 'open' }">
    <span class="mark" :class="step.state" role="img" :aria-label="step.state === 'open' ? 'To do' : step.state === 'done' ? 'Done' : 'Left out'" />
    <div class="said">
      <p class="text">
        {{ step.text }} <span v-if="limits" class="mono soft">{{ limits }}</span><StepTag v-if="step.first">before dispatch</StepTag>
      </p>
      <p v-if="step.assignee || step.doneBy || waitsFor" class="soft small">
        <template v-if="step.state !== 'open'"
          >{{ step.state === 'left' ? 'Left out by' : 'Done by' }} {{ step.doneBy
          }}<template v-if="step.doneAt">, {{ shortTime(step.doneAt) }}</template></template
        >
        <template v-else-if="step.assignee">For {{ step.assignee.name }}</template>
        <template v-if="step.state === 'open' && waitsFor"> Waits for “{{ waitsFor }}”</template>
      </p>
      <p v-if="step.value !== null" class="found" :class="{ wrong: step.outside }">
        <span class="mono">{{ step.value }} {{ step.kind === 'measured' ? step.unit : '' }}</span
        ><template v-if="step.outside"> outside its limits</template>
      </p>
      <p v-if="step.note" class="soft">{{ step.note }}</p>
      <p v-if="step.photoId && step.photoId > 0">
        <a :href="photoUrl ? photoUrl(step.photoId) : address(readAttachment, { id: step.photoId })" target="_blank">Photo</a>
      </p>
      <p v-else-if="step.photoId" class="soft">The photo is kept on this phone until it is sent.</p>
      <form v-if="asking" class="do outside" :aria-label="`Outside: ${step.text}`" @submit.prevent="found()">
        <p role="status">
          <strong class="mono">{{ value }} {{ step.unit }}</strong> is outside its limits, {{ limits }}.
        </p>
        <NButton @click="again">Measure again</NButton>
        <TextEntry :id="`step-${step.id}-wrong`" v-model="note" label="Or say what is wrong" class="why" :max="500" />
        <ChoiceEntry :id="`step-${step.id}-bad`" v-model="severity" apart label="How bad" :options="SEVERITIES" />
        <NButton type="primary" attr-type="submit" :disabled="busy || !note.trim()">Record the finding</NButton>
        <NButton v-if="mayStop" :disabled="busy || !note.trim()" @click="stop">Record it and stop the work</NButton>
      </form>
      <form v-else-if="asks" class="do" :aria-label="`Do: ${step.text}`" @submit.prevent="done(leaving)">
        <TextEntry v-if="leaving" :id="`step-${step.id}-note`" v-model="note" label="Why it is left out" class="why" />
        <template v-else>
          <TextEntry
            v-if="step.kind === 'measured'"
            :id="`step-${step.id}`"
            :model-value="value ?? ''"
            class="value"
            :label="`Value, ${step.unit ?? ''}`"
            inputmode="decimal"
            mono
            @update:model-value="value = $event"
          />
          <ChoiceEntry
            v-if="step.kind === 'choice' && step.choices.length <= 4"
            :id="`step-${step.id}`"
            v-model="value"
            label="Answer"
            :options="texts(step.choices)"
          />
          <ListEntry v-else-if="step.kind === 'choice'" :id="`step-${step.id}`" v-model="value" label="Answer" :options="texts(step.choices)" />
          <FileEntry
            v-if="step.kind === 'photo'"
            :id="`step-${step.id}-photo`"
            label-hidden
            label="Photo"
            press="Photo"
            accept="image/*"
            :disabled="busy"
            @choose="photo"
          />
        </template>
        <NButton size="small" attr-type="submit" :disabled="busy || (leaving ? !note.trim() : isAsked && !value)">{{
          leaving ? 'Leave it out' : 'Done'
        }}</NButton>
        <NButton v-if="leaving" size="small" quaternary @click="leaving = false">Keep it</NButton>
      </form>
      <p v-else-if="mayDo && step.state !== 'open'">
        <NButton text type="primary" size="small" :disabled="busy" @click="send(() => undo(step.version), 'It is to do again.')">Take it back</NButton>
      </p>
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
    </div>
    <div v-if="$slots.acts || may" class="side">
      <NButton v-if="may && !asks" size="small" :aria-label="`Done: ${step.text}`" :disabled="busy" @click="done()">Done</NButton>
      <NButton v-if="may && !leaving" size="tiny" quaternary :aria-label="`Leave out: ${step.text}`" @click="leaving = true">Leave out</NButton>
      <slot name="acts" />
    </div>
    <slot />
  </div>
</template>

<style scoped>
.step {
  display: grid;
  grid-template-columns: 16px 1fr auto;
  gap: 4px 10px;
  padding: 8px 0;
  border-bottom: 1px solid var(--line);
}
p {
  margin: 0;
}
.mark {
  width: 14px;
  height: 14px;
  margin-top: 3px;
  border: 2px solid var(--tide);
  border-radius: 3px;
}
.mark.done {
  background: var(--tide);
}
.mark.left {
  border-style: dashed;
  border-color: var(--ink-soft);
}
.over .text {
  color: var(--ink-soft);
}
.side {
  display: flex;
  gap: 4px;
  align-self: start;
  align-items: center;
  margin-top: -3px;
}
.small {
  font-size: 12px;
}
.do {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: end;
  margin-top: 4px;
}
.value {
  width: 130px;
}
.why {
  flex: 1 1 200px;
}
.found.wrong {
  color: var(--buoy);
}
@media (forced-colors: active) {
  .mark {
    forced-color-adjust: none;
    border-color: CanvasText;
  }
  .mark.done {
    background: CanvasText;
  }
}
</style>
