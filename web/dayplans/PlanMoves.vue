<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { NCheckbox } from 'naive-ui/es/checkbox'
import { computed, ref, watch } from 'vue'
import type { DayPlan, DayPlanMove } from '#contract/dayplans'
import { withNeeds } from '#core/dayplans'
import { PriorityBar, shortTime } from '#web/kit'

/** The moves of a plan by who gets them, each with what decided it; all of them are made, somebody’s, or those that were ticked. */
const props = defineProps<{ result: NonNullable<DayPlan['result']>; busy: boolean }>()
const emit = defineEmits<{ take: [moves: number[]]; tick: [moves: ReadonlySet<number>] }>()

const chosen = ref<ReadonlySet<number>>(new Set())
const open = computed(() => props.result.moves.filter(({ taken }) => !taken))
const groups = computed(() => {
  const found = new Map<string, DayPlanMove[]>()
  for (const move of props.result.moves) {
    const name = (move.to ?? move.from)!.people.map((one) => one.name).join(' and ')
    found.set(name, [...(found.get(name) ?? []), move])
  }
  return [...found].map(([name, moves]) => ({ name, moves, open: moves.filter(({ taken }) => !taken).map(({ at }) => at) }))
})
/** Those ticked, and what has to be made with them. */
const together = computed(() => new Set(withNeeds(props.result.moves, chosen.value).filter((at) => !props.result.moves[at]!.taken)))
watch(together, (moves) => emit('tick', moves))
function tick(moves: readonly number[], on: boolean): void {
  const now = new Set(chosen.value)
  for (const at of moves) {
    if (on) now.add(at)
    else now.delete(at)
  }
  chosen.value = now
}
function make(moves: number[]): void {
  emit('take', moves)
  chosen.value = new Set()
}
const says = ({ from, to }: DayPlanMove) => {
  const who = (one: NonNullable<DayPlanMove['to']>) => one.people.map(({ name }) => name).join(' and ')
  if (!to) return `${shortTime(from!.start)}, ${who(from!)}: taken back`
  if (!from) return shortTime(to.start)
  if (from.start === to.start && who(from) === who(to)) return `${shortTime(to.start)}: stays, once there is room`
  const other = who(from) === who(to) ? '' : `, ${who(from)}`
  return `${shortTime(from.start)}${other} → ${shortTime(to.start)}`
}
/** Those it has to be made for, where it is dearer by itself. */
const makesRoomFor = (move: DayPlanMove) => props.result.moves.filter(({ needs }) => needs.includes(move.at)).map(({ number }) => number)
const numberOf = (at: number) => props.result.moves[at]?.number ?? ''
</script>

<template>
  <section v-if="result.moves.length" aria-label="Moves">
    <div v-if="open.length" class="acts">
      <NButton type="primary" :loading="busy" @click="make(open.map(({ at }) => at))"
        >Make {{ open.length === 1 ? 'the move' : `all ${open.length} moves` }}</NButton
      >
      <NButton v-if="chosen.size" :disabled="busy" @click="make([...chosen])"
        >Make {{ together.size === 1 ? 'the one' : `the ${together.size}` }} ticked</NButton
      >
    </div>
    <p v-else class="first">All of its moves were made.</p>
    <div v-for="group in groups" :key="group.name" class="group">
      <h3>
        <NCheckbox
          v-if="group.open.length"
          :checked="group.open.every((at) => chosen.has(at))"
          :indeterminate="group.open.some((at) => together.has(at)) && !group.open.every((at) => chosen.has(at))"
          @update:checked="tick(group.open, $event)"
          >{{ group.name }}</NCheckbox
        >
        <template v-else>{{ group.name }}</template>
      </h3>
      <ul>
        <li v-for="move in group.moves" :key="move.at" :class="{ taken: move.taken }">
          <NCheckbox
            :checked="together.has(move.at) || move.taken"
            :disabled="move.taken || (together.has(move.at) && !chosen.has(move.at))"
            :aria-label="`${move.number} ${move.summary}`"
            @update:checked="tick([move.at], $event)"
          />
          <div>
            <p class="what">
              <PriorityBar :priority="move.priority" />
              <RouterLink :to="`/desk/dispatch/order/${move.orderId}`">{{ move.number }}</RouterLink>
              {{ move.summary }}
            </p>
            <p>{{ says(move) }}{{ move.promised ? ' (promised)' : '' }}{{ move.taken ? ', made' : '' }}</p>
            <p class="soft because">
              <template v-for="(term, n) in move.because" :key="term.words"
                >{{ n ? ' · ' : '' }}{{ term.words }}
                <span class="by">{{ term.by > 0 ? '+' : '−' }}{{ Math.abs(term.by).toLocaleString('en-IE') }}</span></template
              >
              <template v-if="makesRoomFor(move).length">{{ move.because.length ? ' · ' : '' }}makes room for {{ makesRoomFor(move).join(', ') }}</template>
            </p>
            <p v-if="move.needs.some((at) => !result.moves[at]?.taken)" class="soft">Made together with {{ move.needs.map(numberOf).join(', ') }}.</p>
          </div>
        </li>
      </ul>
    </div>
  </section>
  <details v-if="result.left.length || result.notReady.length">
    <summary>Not done within these days: {{ result.left.length + result.notReady.length }}</summary>
    <ul>
      <li v-for="one in [...result.left, ...result.notReady]" :key="one.orderId">
        <div>
          <RouterLink :to="`/desk/dispatch/order/${one.orderId}`">{{ one.number }}</RouterLink> {{ one.summary }}: <span class="soft">{{ one.why }}</span>
        </div>
      </li>
    </ul>
  </details>
</template>

<style scoped src="../board/panel.css"></style>
<style scoped>
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  position: sticky;
  top: 0;
  background: var(--sheet);
  padding: 6px 0;
  z-index: 1;
}
.group h3 {
  margin: 10px 0 2px;
}
ul {
  list-style: none;
  padding: 0;
  margin: 0;
}
li {
  display: flex;
  gap: 8px;
  padding: 5px 0;
  border-bottom: 1px solid var(--line);
}
li p {
  margin: 0;
}
.what {
  display: flex;
  gap: 6px;
  align-items: center;
}
.because {
  font-size: 12px;
}
.by {
  font-variant-numeric: tabular-nums;
}
.taken {
  color: var(--ink-soft);
}
.first {
  font-weight: 600;
}
</style>
