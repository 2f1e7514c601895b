<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { nextTick, ref, watch } from 'vue'
import type { Reason } from '#core/kit'
import { texts, TextEntry, ListEntry, ChoiceEntry, dropDrafts, offerActs, useDraft } from '#web/kit'

export interface OfferedMove {
  move: string
  label: string
  key: string
  reasons: Reason[]
  reason: 'required' | 'optional' | 'none'
  /** The next act, when it is possible: the one that carries the work on. */
  onward?: boolean
  reasonLabel?: string
  /** Reasons to choose from, where a rule gives a list. */
  answers?: string[]
  /** Choices that go with the reason, such as what an order waits for. */
  choices?: { name: string; options: { value: string; label: string }[] }
}

/** The moves of a Sheet: what can be done now, and why the rest cannot. A reason jumps to its field. */
const props = defineProps<{ moves: OfferedMove[]; busy?: boolean }>()
const emit = defineEmits<{ go: [string, { reason?: string; choice?: string }]; jump: [string] }>()
const asking = ref<OfferedMove | null>(null)
const explained = ref<OfferedMove | null>(null)
/** What is being written for a move, kept by Sheet and move until one was made: a refusal loses none of it. */
const draftsOf = () => `move-${location.pathname}-`
const written = useDraft(() => `${draftsOf()}${asking.value?.move ?? 'none'}`)
watch(
  () => props.moves.map((move) => move.move).join(),
  () => dropDrafts(draftsOf()),
)
const choice = ref('')
const answer = ref('')
const missing = ref(false)

function press(move: OfferedMove): void {
  asking.value = explained.value = null
  missing.value = false
  if (move.reasons.length) {
    explained.value = move
    return
  }
  if (move.reason === 'none' && !move.choices) return emit('go', move.move, {})
  answer.value = ''
  choice.value = move.choices?.options[0]?.value ?? ''
  asking.value = move
  void nextTick(() => document.getElementById(move.answers?.length ? 'move-answer' : 'move-reason')?.focus())
}

function confirm(): void {
  const move = asking.value!
  const listed = !!move.answers?.length
  const reason = listed ? [answer.value, written.value.trim()].filter(Boolean).join(': ') : written.value.trim()
  if (move.reason === 'required' && !(listed ? answer.value : reason)) {
    missing.value = true
    return
  }
  asking.value = null
  emit('go', move.move, { reason: reason || undefined, choice: choice.value || undefined })
}

offerActs(() =>
  props.moves.map((move) => ({
    label: move.label,
    key: move.key || undefined,
    run: () => press(move),
    whyNot: undefined,
    sight: `[data-move="${move.move}"]`,
    changes: true,
  })),
)
</script>

<template>
  <div class="moves">
    <div class="buttons" role="toolbar" aria-label="Moves">
      <NButton
        v-for="move in moves"
        :key="move.move"
        :type="move.onward && !move.reasons.length ? 'primary' : 'default'"
        :aria-disabled="move.reasons.length > 0"
        :disabled="busy"
        :data-move="move.move"
        @click="press(move)"
      >
        {{ move.label }}<span v-if="move.reason === 'required' && !move.reasons.length" class="asks" title="A reason is needed">…</span
        ><kbd v-if="move.key">{{ move.key.toUpperCase() }}</kbd>
      </NButton>
      <slot />
    </div>
    <form v-if="asking" class="ask" @submit.prevent="confirm" @keydown.ctrl.enter.prevent="confirm" @keydown.esc.stop="asking = null">
      <ChoiceEntry v-if="asking.choices" id="move-choice" v-model="choice" class="whole" :label="asking.choices.name" :options="asking.choices.options" />
      <ListEntry
        v-if="asking.answers?.length"
        id="move-answer"
        v-model="answer"
        class="grow"
        :label="`${asking.reasonLabel ?? 'Why'} (needed)`"
        :options="texts(asking.answers)"
        :problem="missing ? 'Choose one.' : undefined"
      />
      <TextEntry
        id="move-reason"
        v-model="written"
        class="grow"
        long
        :max="400"
        :label="asking.answers?.length ? 'In your own words' : `${asking.reasonLabel ?? 'Why'}${asking.reason === 'required' ? ' (needed)' : ''}`"
        :problem="missing && !asking.answers?.length ? 'Write it in a few words.' : undefined"
      />
      <NButton type="primary" attr-type="submit">{{ asking.label }} <kbd>Ctrl Enter</kbd></NButton>
      <NButton @click="asking = null">Leave it</NButton>
    </form>
    <div v-if="explained" class="why" role="status">
      <p>
        <strong>“{{ explained.label }}” is not possible yet:</strong>
      </p>
      <ul>
        <li v-for="reason in explained.reasons" :key="reason.code">
          <NButton v-if="reason.field" text type="primary" class="link" @click="emit('jump', reason.field)">{{ reason.sentence }}</NButton>
          <span v-else>{{ reason.sentence }}</span>
        </li>
      </ul>
    </div>
  </div>
</template>

<style scoped>
.moves {
  display: grid;
  gap: 10px;
}
.buttons {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.ask {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  align-items: end;
  padding: 10px;
  background: var(--shoal-faint);
  border-radius: 6px;
}
.whole {
  flex-basis: 100%;
}
.grow {
  flex: 1 1 260px;
}
.why {
  padding: 10px 12px;
  border-left: 4px solid var(--buoy);
  background: var(--paper);
  border-radius: 0 6px 6px 0;
}
.why ul {
  margin: 4px 0 0;
  padding-left: 18px;
}
</style>
