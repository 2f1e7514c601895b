<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, onBeforeUnmount, onMounted, ref, shallowRef, watch } from 'vue'
import type { BoardPerson, Rearrangement } from '#contract/board'
import { computeDayPlan, listDayPlans, readDayPlan, takeDayPlan } from '#contract/dayplans'
import type { DayPlan, DayPlanAsk } from '#contract/dayplans'
import { isChange } from '#core/events'
import { call, CallProblem, freshKey, onLiveChange, ProblemNote, shortTime, useLoading, useSoon, writtenDay } from '#web/kit'
import PlanAskForm from './PlanAskForm.vue'
import PlanCompared from './PlanCompared.vue'
import PlanMoves from './PlanMoves.vue'
import { proposalsOf } from './proposed'
import type { Proposals } from './proposed'

/** Has a plan computed, holds it against the one that stands, and makes of it what convinces. */
const props = defineProps<{ siteId: number; first: string; days: DayPlanAsk['days']; people: BoardPerson[]; team: string | null; repairs: boolean }>()
const emit = defineEmits<{ leave: []; taken: [undo: Rearrangement, sentence: string]; proposes: [Proposals | null] }>()
const panel = ref<HTMLElement | null>(null)
onMounted(() => panel.value?.focus({ preventScroll: true }))

const planId = ref<number | null>(null)
const read = useLoading<DayPlan>(() => call(readDayPlan, { siteId: props.siteId, planId: planId.value! }))
const plan = computed(() => (planId.value === null ? null : read.value.value))
const result = computed(() => plan.value?.result ?? null)
/** What it would change is drawn on the Board while it is looked at. */
const ticked = shallowRef<ReadonlySet<number>>(new Set())
watch(planId, () => (ticked.value = new Set()))
watch([result, ticked], ([now]) => emit('proposes', now && proposalsOf(now.moves, ticked.value)))
onBeforeUnmount(() => emit('proposes', null))
const wrong = ref('')
const busy = ref(false)
const LOOK_AGAIN_MS = 600
let timer: ReturnType<typeof setTimeout> | undefined
let round = 0
onBeforeUnmount(stopLooking)
function stopLooking(): void {
  round++
  clearTimeout(timer)
}
/** Until the plan is there, and the bound beside it. */
async function look(mine = round): Promise<void> {
  await read.load()
  if (mine !== round) return
  const now = read.value.value
  const waits = !now || now.state === 'waiting' || (now.state === 'ready' && now.bound.state === 'computing')
  if (waits) timer = setTimeout(() => void look(mine), now?.state === 'ready' ? 2 * LOOK_AGAIN_MS : LOOK_AGAIN_MS)
}
/** What was made of it and is taken back on the Board can be made again. */
const lookSoon = useSoon(() => (result.value ? read.load() : undefined), 150)
onLiveChange((change) => void ((!change || isChange(change.kind)) && lookSoon()))
async function compute(ask: Omit<DayPlanAsk, 'siteId' | 'first' | 'days'>): Promise<void> {
  await acting(async () => {
    const made = await call(computeDayPlan, { ...ask, siteId: props.siteId, first: props.first, days: props.days ?? 1 }, { key: freshKey() })
    read.value.value = null
    planId.value = made.id
    stopLooking()
    void look()
    // The form that had the keyboard is gone.
    panel.value?.focus({ preventScroll: true })
  })
}
/** Found again after its panel was closed, whoever asked for it. */
const earlier = useLoading(() => call(listDayPlans, { siteId: props.siteId }))
void earlier.load()
const lately = computed(() => (earlier.value.value?.rows ?? []).filter(({ state }) => state !== 'failed').slice(0, 4))
function open(id: number): void {
  read.value.value = null
  planId.value = id
  stopLooking()
  void look()
}
async function take(moves: number[]): Promise<void> {
  await acting(async () => {
    const { undo, taken } = await call(takeDayPlan, { siteId: props.siteId, planId: planId.value!, version: plan.value!.version, moves }, { key: freshKey() })
    if (undo.changes.length + undo.adds.length + undo.drops.length)
      emit('taken', undo, `${taken.length === 1 ? 'One move' : `${taken.length} moves`} of the plan made.`)
    await read.load()
  })
}
async function acting(act: () => Promise<void>): Promise<void> {
  if (busy.value) return
  busy.value = true
  wrong.value = ''
  try {
    await act()
  } catch (error) {
    wrong.value = error instanceof CallProblem ? error.message : 'It could not be done. Try again.'
    if (planId.value !== null) await read.load()
  } finally {
    busy.value = false
  }
}
function again(): void {
  stopLooking()
  planId.value = null
  wrong.value = ''
  void earlier.load()
}
const when = computed(() => {
  const [from, until] = [plan.value?.first ?? props.first, plan.value?.last ?? props.first]
  return from === until ? writtenDay(from) : `${writtenDay(from)} to ${writtenDay(until)}`
})
</script>

<template>
  <section ref="panel" class="panel" tabindex="-1" aria-label="Plan" @keydown.esc.stop="emit('leave')">
    <header>
      <h2>Computed plan{{ plan ? `: ${when}` : '' }}</h2>
      <NButton size="small" aria-label="Close this" @click="emit('leave')">×</NButton>
    </header>
    <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
    <section v-if="planId === null && lately.length" aria-label="Computed lately">
      <h3>Computed lately</h3>
      <ul class="lately">
        <li v-for="one in lately" :key="one.id">
          <span
            >{{ shortTime(one.createdAt) }} by {{ one.createdBy }},
            {{ one.first === one.last ? writtenDay(one.first) : `${writtenDay(one.first)} to ${writtenDay(one.last)}`
            }}<template v-if="one.repair">, a repair</template><template v-if="one.taken">, {{ one.taken }} moves made</template></span
          >
          <NButton size="small" @click="open(one.id)">Look at it</NButton>
        </li>
      </ul>
    </section>
    <PlanAskForm v-if="planId === null" :people="people" :team="team" :repairs="repairs" :busy="busy" @ask="compute" />
    <template v-else>
      <ProblemNote v-if="read.problem.value && !plan" :problem="read.problem.value" @retry="look()" />
      <p v-else-if="!plan || plan.state === 'waiting'" role="status">Looking for a plan. Nothing is changed by it.</p>
      <template v-else-if="plan.state === 'failed'">
        <p role="alert">No plan was computed: it failed twice. Nothing was changed. Try it with fewer days or people.</p>
      </template>
      <template v-else-if="result">
        <PlanCompared :result="result" :bound="plan.bound" />
        <PlanMoves :result="result" :busy="busy" @take="take" @tick="ticked = $event" />
      </template>
      <NButton size="small" class="again" @click="again">Ask for another plan</NButton>
    </template>
  </section>
</template>

<style scoped src="../board/panel.css"></style>
<style scoped>
.lately {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 6px;
}
.lately li {
  display: flex;
  justify-content: space-between;
  gap: 10px;
  align-items: baseline;
}
.again {
  justify-self: start;
}
</style>
