<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { NButton } from 'naive-ui/es/button'
import { computed, nextTick, ref, watch } from 'vue'
import MoveButton from './MoveButton.vue'
import type { OfferedMove } from './offeredMove'
import ReasonList from './ReasonList.vue'
import { texts, TextEntry, ListEntry, ChoiceEntry, dropDrafts, offerActs, useDraft } from '#web/kit'

const MOST_IN_SIGHT = 5
const MORE_WIDE = 56

/**
 * The moves of a Sheet in one row: the one that leads on first, what is possible after it, at most five in sight.
 * The rest is one press away, with why it is not possible; a reason jumps to its field.
 */
const props = defineProps<{ moves: OfferedMove[]; busy?: boolean }>()
const emit = defineEmits<{ go: [string, { reason?: string; choice?: string; ownStateId?: number }]; jump: [string] }>()
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
const own = ref<number | null>(null)
const answer = ref('')
const missing = ref(false)
const more = ref(false)

/** What leads on, possible or not; what is possible; what is not. */
const rank = (move: OfferedMove) => (move.onward ? (move.reasons.length ? 1 : 0) : move.reasons.length ? 3 : 2)
const ordered = computed(() => [...props.moves].sort((one, other) => rank(one) - rank(other)))
const root = ref<HTMLElement | null>(null)
const { width } = useElementSize(root)
/** About how wide its button is: they stay on one row, whatever the width of the Sheet. */
const widthOf = ({ label, key, reason }: OfferedMove) => 22 + 6.6 * (label.length + (reason === 'required' ? 1 : 0)) + (key ? 30 : 0)
const inSight = computed(() => {
  let left = width.value ? width.value - MORE_WIDE : Infinity
  return ordered.value
    .filter((move) => rank(move) < 3)
    .slice(0, MOST_IN_SIGHT)
    .filter((move, place) => (left -= widthOf(move)) >= 0 || place === 0)
})
const rest = computed(() => ordered.value.filter((move) => !inSight.value.includes(move)))
const possible = computed(() => rest.value.filter((move) => !move.reasons.length))
const refused = computed(() => rest.value.filter((move) => move.reasons.length))

function press(move: OfferedMove): void {
  asking.value = explained.value = null
  missing.value = more.value = false
  if (move.opens) return void move.opens()
  if (move.reasons.length) {
    explained.value = move
    return
  }
  if (move.reason === 'none' && !move.choices) return emit('go', move.move, {})
  answer.value = ''
  own.value = null
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
  emit('go', move.move, { reason: reason || undefined, choice: choice.value || undefined, ownStateId: own.value ?? undefined })
}

function jump(field: string): void {
  more.value = false
  emit('jump', field)
}

offerActs(() =>
  props.moves.map((move) => ({
    label: move.label,
    key: move.key || undefined,
    run: () => press(move),
    whyNot: undefined,
    sight: inSight.value.includes(move) ? `[data-move="${move.move}"]` : undefined,
    changes: !move.opens,
  })),
)
</script>

<template>
  <div ref="root" class="moves">
    <div v-if="moves.length" class="buttons" role="toolbar" aria-label="Moves">
      <MoveButton v-for="move in inSight" :key="move.move" :move="move" :busy="busy" @press="press(move)" />
      <NButton v-if="rest.length" size="small" quaternary :aria-expanded="more" @click="more = !more">More</NButton>
      <slot />
    </div>
    <div v-if="more" class="rest" role="group" aria-label="More moves" @keydown.esc.stop="more = false">
      <div v-if="possible.length" class="buttons">
        <MoveButton v-for="move in possible" :key="move.move" :move="move" :busy="busy" @press="press(move)" />
      </div>
      <template v-if="refused.length">
        <p class="soft">Not possible now:</p>
        <dl>
          <template v-for="move in refused" :key="move.move">
            <dt>{{ move.label }}</dt>
            <dd><ReasonList :reasons="move.reasons" @jump="jump" /></dd>
          </template>
        </dl>
      </template>
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
      <ListEntry
        v-if="asking.own?.length"
        id="move-own"
        v-model="own"
        class="own"
        clearable
        label="More exactly"
        placeholder="Nothing more"
        :options="asking.own"
      />
      <NButton type="primary" attr-type="submit">{{ asking.label }} <kbd>Ctrl Enter</kbd></NButton>
      <NButton @click="asking = null">Leave it</NButton>
    </form>
    <div v-if="explained" class="why" role="status">
      <p>
        <strong>“{{ explained.label }}” is not possible yet:</strong>
      </p>
      <ReasonList :reasons="explained.reasons" @jump="jump" />
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
  gap: 6px;
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
.own {
  width: 220px;
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
.rest {
  display: grid;
  gap: 8px;
  padding: 8px 12px;
  background: var(--paper);
  border-radius: 6px;
  max-height: 40vh;
  overflow: auto;
}
.rest dl {
  margin: 0;
  display: grid;
  grid-template-columns: minmax(90px, max-content) minmax(0, 1fr);
  gap: 2px 14px;
}
.rest dt {
  color: var(--ink-soft);
}
.rest dd {
  margin: 0;
}
</style>
