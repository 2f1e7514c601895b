<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, onMounted, ref, watch } from 'vue'
import { RouterLink } from 'vue-router'
import { listBestFits } from '#contract/board'
import type { BestFit, Board, BoardVisit, WaitingOrder } from '#contract/board'
import { isBarred } from '#core/board'
import type { Stretch } from '#core/board'
import { isChange } from '#core/events'
import { ChoiceEntry, dayAfter, fromLocalField, ListEntry, MomentEntry, NumberEntry, RowButton, rowsNamed, spanTime, toLocalField, useRead } from '#web/kit'
import { ProposalBox } from '#web/dispatch'
import type { Holding } from './holding'

/** One visit, or an order that waits: who goes and when by form, who fits best, and what else can be done with it. */
const props = defineProps<{ board: Board; siteId: number; visit: BoardVisit | null; order: WaitingOrder | null; row: string; holding: Holding }>()
const emit = defineEmits<{ leave: [] }>()
const panel = ref<HTMLElement | null>(null)
// The keyboard goes along: it comes back to where it was when this is left.
onMounted(() => panel.value?.focus({ preventScroll: true }))
const about = computed(() => (props.visit ?? props.order)!)
const orderId = computed(() => props.visit?.orderId ?? props.order!.id)
const mine = computed(() => (props.visit && props.row.startsWith('t') ? Number(props.row.slice(1)) : null))
const vendorName = computed(() => props.board.vendors.find(({ id }) => props.row === `v${id}`)?.name ?? '')
const isVendor = computed(() => props.visit !== null && mine.value === null)

const ACTS = { move: 'Move', split: 'Split', more: 'Add one', swap: 'Swap', drop: 'Take back' } as const
type ActName = keyof typeof ACTS
const offered = computed<{ value: ActName; label: string }[]>(() =>
  (isVendor.value ? (['move'] as const) : (Object.keys(ACTS) as ActName[])).map((value) => ({ value, label: ACTS[value] })),
)
const act = ref<ActName>('move')
const who = ref<number | null>(null)
const start = ref('')
const minutes = ref<number | null>(60)
/** Of a visit that is split, for how long the first part lasts. */
const kept = ref<number | null>(30)
const with_ = ref<number | null>(null)
const minutesOf = ({ from, until }: { from: string; until: string }) => Math.round((new Date(until).getTime() - new Date(from).getTime()) / 60_000)

/** Begun anew for another visit, and when it was moved elsewhere meanwhile. */
watch(
  () => [props.visit?.id, props.visit?.version, props.order?.id, act.value] as const,
  () => {
    who.value = mine.value
    with_.value = null
    const { visit } = props
    if (!visit) return void ([start.value, minutes.value] = ['', props.order!.minutes])
    minutes.value = minutesOf(visit)
    kept.value = Math.max(15, Math.round(minutes.value / 30) * 15)
    start.value = toLocalField(new Date(visit.from))
    // The rest of what is split is proposed for the day after, at the same time.
    if (act.value === 'split') start.value = dayAfter(start.value.slice(0, 10), 1) + start.value.slice(10)
    if (act.value === 'split') minutes.value = Math.max(15, minutes.value - kept.value)
    if (act.value === 'more') who.value = null
  },
  { immediate: true },
)
const best = useRead(
  listBestFits,
  () => (isVendor.value ? null : { siteId: props.siteId, orderId: orderId.value, first: props.board.first, days: props.board.days }),
  { holds: true, touchedBy: ({ kind }) => isChange(kind) },
)
/** The best fit is proposed for what nobody is planned for. */
watch(
  () => best.value.value?.rows[0],
  (first) => first && props.order && !start.value && take(first),
  { immediate: true },
)
function take(fit: BestFit): void {
  who.value = fit.technicianId
  start.value = toLocalField(new Date(fit.start))
}

const at = computed<Stretch | null>(() => {
  const from = fromLocalField(start.value)
  return Number.isNaN(from.getTime()) || !minutes.value ? null : { from, until: new Date(from.getTime() + minutes.value * 60_000) }
})
const needs = computed(() => act.value !== 'swap' && act.value !== 'drop')
const conflicts = computed(() => (at.value && needs.value && (who.value || isVendor.value) ? props.holding.judge(judged.value, who.value, at.value) : []))
/** Of one more visit, the one there is counts among the others. */
const judged = computed(() => (props.visit && act.value !== 'move' ? { ...props.visit, id: 0 } : about.value))
const partners = computed(() =>
  props.board.people.flatMap((person) =>
    person.visits
      .filter(({ id, state }) => state === 'planned' && id !== props.visit?.id)
      .map((visit) => ({ value: visit.id, label: `${visit.number}, ${person.name}, ${spanTime(visit.from, visit.until)}`, visit, technicianId: person.id })),
  ),
)
const wrong = ref('')
const span = (stretch: Stretch) => ({ start: stretch.from.toISOString(), end: stretch.until.toISOString() })

function send(): void {
  wrong.value = ''
  const { visit, order, holding } = props
  const name = (id: number | null) => holding.personOf(id)?.name ?? ''
  if (needs.value && (!at.value || (!who.value && !isVendor.value))) return void (wrong.value = 'Choose who goes, when and for how long.')
  if (order) {
    void holding.send(
      { adds: [{ orderId: order.id, version: order.version, technicianId: who.value!, ...span(at.value!) }] },
      `${order.number} dispatched: ${name(who.value)}.`,
      conflicts.value,
    )
    return
  }
  const held = { visitId: visit!.id, version: visit!.version }
  const more = () => ({ orderId: visit!.orderId, version: visit!.orderVersion, technicianId: who.value!, ...span(at.value!) })
  if (act.value === 'move')
    void holding.send(
      { changes: [{ ...held, ...(isVendor.value ? {} : { technicianId: who.value! }), ...span(at.value!) }] },
      `${visit!.number} moved.`,
      conflicts.value,
    )
  else if (act.value === 'more') void holding.send({ adds: [more()] }, `${visit!.number}: ${name(who.value)} goes too.`, conflicts.value)
  else if (act.value === 'drop') void holding.send({ drops: [held] }, `${visit!.number} taken back.`)
  else if (act.value === 'split') {
    const from = new Date(visit!.from)
    if (!kept.value || kept.value >= minutesOf(visit!)) return void (wrong.value = 'The first part is shorter than the whole visit.')
    const first = { from, until: new Date(from.getTime() + kept.value * 60_000) }
    void holding.send({ changes: [{ ...held, ...span(first) }], adds: [more()] }, `${visit!.number} split over two times.`, conflicts.value)
  } else swap()
}
/** Each goes where the other was, for as long as before. */
function swap(): void {
  const other = partners.value.find(({ value }) => value === with_.value)
  if (!other) return void (wrong.value = 'Choose the visit it changes places with.')
  const visit = props.visit!
  const placed = (one: BoardVisit, place: BoardVisit, technicianId: number) => {
    const from = new Date(place.from)
    return { visitId: one.id, version: one.version, technicianId, ...span({ from, until: new Date(from.getTime() + minutesOf(one) * 60_000) }) }
  }
  void props.holding.send(
    { changes: [placed(visit, other.visit, other.technicianId), placed(other.visit, visit, mine.value!)] },
    `${visit.number} and ${other.visit.number} changed places.`,
  )
}
const DOES: Record<ActName, string> = { move: 'Move it', split: 'Split it', more: 'Send them too', swap: 'Swap them', drop: 'Take it back' }
const stays = computed(() => props.visit !== null && props.visit.state !== 'planned')
</script>

<template>
  <section ref="panel" class="panel" tabindex="-1" :aria-label="about.number" @keydown.esc.stop="emit('leave')">
    <header>
      <h2>
        <span class="mono">{{ about.number }}</span> {{ about.summary }}
      </h2>
      <NButton size="small" aria-label="Close this" @click="emit('leave')">×</NButton>
    </header>
    <p class="soft">
      <template v-if="visit">{{ spanTime(visit.from, visit.until) }}. </template>
      <template v-if="about.window">Agreed for {{ spanTime(about.window.from, about.window.until) }}. </template>
      <RouterLink :to="`/desk/${visit ? 'field' : 'dispatch'}/order/${orderId}`">Open its Sheet</RouterLink>
    </p>
    <ProposalBox
      v-if="visit?.proposed && !stays"
      :site-id="siteId"
      :visit="visit"
      :who="vendorName"
      :proposed="{ start: visit.proposed.start, end: visit.proposed.end }"
      :note="visit.proposed.note"
      @done="emit('leave')"
    />
    <p v-if="stays" class="soft">Somebody is there, or was: what is still to come can be moved.</p>
    <form v-else aria-label="Who and when" @submit.prevent="send">
      <ChoiceEntry v-if="visit && offered.length > 1" id="plan-act" v-model="act" label="What to do" label-hidden :options="offered" />
      <NumberEntry v-if="act === 'split'" id="plan-kept" v-model="kept" label="The first part" unit="min" :least="15" :step="15" />
      <template v-if="needs">
        <ListEntry v-if="!isVendor" id="plan-who" v-model="who" :label="act === 'split' ? 'Who does the rest' : 'Who'" :options="rowsNamed(board.people)" />
        <div class="when">
          <MomentEntry id="plan-start" v-model="start" label="Start" />
          <NumberEntry id="plan-minutes" v-model="minutes" label="Minutes" :least="15" :most="1440" :step="15" />
        </div>
        <ul v-if="conflicts.length" class="against" aria-label="Speaks against it">
          <li v-for="one in conflicts" :key="one.sentence" :class="one.weight">{{ one.sentence }}</li>
        </ul>
        <p v-else-if="at && (who || isVendor)" class="soft">Nothing speaks against it.</p>
      </template>
      <ListEntry v-else-if="act === 'swap'" id="plan-with" v-model="with_" label="With" :options="partners" />
      <p v-else class="soft">Whoever was to go is told. If nobody else is planned, the order is to be dispatched again.</p>
      <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
      <NButton type="primary" attr-type="submit" :loading="holding.busy.value" :disabled="isBarred(conflicts)">{{ order ? 'Dispatch' : DOES[act] }}</NButton>
    </form>
    <template v-if="!isVendor && !stays && best.value.value">
      <h3>Who fits best</h3>
      <ol v-if="best.value.value.rows.length">
        <li v-for="fit in best.value.value.rows.slice(0, 5)" :key="fit.technicianId">
          <RowButton @click="take(fit)"
            ><span
              ><strong>{{ fit.name }}</strong> {{ spanTime(fit.start, fit.end) }} <span class="soft">{{ fit.because.join(' ') }}</span></span
            ></RowButton
          >
        </li>
      </ol>
      <p v-else class="soft">Nobody with the trade has room for it on the days shown.</p>
    </template>
  </section>
</template>

<style scoped src="./panel.css"></style>
