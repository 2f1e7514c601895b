<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, ref, watch } from 'vue'
import { RouterLink, useRoute, useRouter } from 'vue-router'
import { listFloorplans, readFloorplan } from '#contract/floorplans'
import type { Floorplan, PlanAsset } from '#contract/floorplans'
import type { LiveChange } from '#contract/insight'
import { areaOf } from '#core/floorplans'
import { counted } from '#core/kit'
import { ListEntry, LoadedPart, offerActs, RecordLink, useRead, useSession, useVocabulary, writtenAs } from '#web/kit'
import { workSays } from './drawn'
import type { OnPlan } from './drawn'
import { drawingOf } from './drawingOf'
import PictureForm from './PictureForm.vue'
import PlanDrawing from './PlanDrawing.vue'
import PlanList from './PlanList.vue'
import TakePlan from './TakePlan.vue'
import { usePinMove } from './usePinMove'

/** A floor: its spaces and what stands in them, drawn to scale, with the work that is open; beside it the same as a list. */
const route = useRoute()
const router = useRouter()
const session = useSession()
const words = useVocabulary()
void words.ensure()
const plans = useRead(listFloorplans, {}, { touchedBy: ({ register }) => register === 'places' })
const rows = computed(() => plans.value.value?.rows ?? [])
const planId = computed(() => Number(route.params.id) || rows.value.find(({ drawn }) => drawn)?.id || rows.value[0]?.id || null)
const touchedBy = (change: LiveChange) =>
  change.kind.startsWith('floorplan.') || change.register === 'places' || change.register === 'assets' || change.orderId !== null
const read = useRead(readFloorplan, () => (planId.value ? { id: planId.value } : null), { touchedBy, holds: true })
const plan = computed(() => read.value.value)
const drawing = computed(() => (plan.value ? drawingOf(plan.value) : null))
const options = computed(() =>
  rows.value.map(({ id, code, name, within, drawn }) => ({
    value: id,
    label: `${code} ${[name, within].filter(Boolean).join(', ')}${drawn ? '' : ' (not drawn)'}`,
  })),
)

/** What is chosen stands in the address, so that it can be handed on. */
const chosen = computed<OnPlan | null>(() => {
  const { space, asset } = route.query
  if (space) return { kind: 'space', id: Number(space) }
  return asset ? { kind: 'asset', id: Number(asset) } : null
})
/** Spaces that are picked to do something with all of them; null while one thing is chosen at a time. */
const picked = ref<Set<number> | null>(null)
watch(planId, () => (picked.value = null))
function choose(what: OnPlan | null): void {
  if (!picked.value) return one(what)
  if (what?.kind !== 'space') return
  const now = new Set(picked.value)
  if (!now.delete(what.id)) now.add(what.id)
  picked.value = now
}
const makeFor = (ids: Iterable<number>) => router.push({ path: '/templates', query: { places: [...ids].join() } })
const one = (what: OnPlan | null) => void router.replace({ params: { id: String(planId.value) }, query: what ? { [what.kind]: String(what.id) } : {} })
const space = computed(() => (chosen.value?.kind === 'space' ? (plan.value?.spaces.find(({ id }) => id === chosen.value!.id) ?? null) : null))
const asset = computed(() => (chosen.value?.kind === 'asset' ? (plan.value?.assets.find(({ id }) => id === chosen.value!.id) ?? null) : null))
const standsIn = computed(() => plan.value?.spaces.find(({ id }) => id === asset.value?.placeId) ?? null)

const board = ref<InstanceType<typeof PlanDrawing> | null>(null)
const show = (now: Floorplan) => void (read.value.value = now)
const pin = usePinMove(plan, show)
const { moving, problem } = pin
const begin = (one: PlanAsset) => pin.begin(one, () => board.value?.centre() ?? [0, 0])
watch(chosen, () => pin.leave())
const taking = ref(false)
const laying = ref(false)
const mayEdit = computed(() => plan.value !== null && plan.value.whyNot === null)
offerActs(() => (mayEdit.value ? [{ label: 'Take in a floor plan', run: () => (taking.value = true) }] : []))
const called = computed(() => (plan.value ? `${plan.value.place.code} ${plan.value.place.name}` : ''))
</script>

<template>
  <div class="page">
    <header>
      <h1>Floor plans</h1>
      <ListEntry
        id="plan"
        class="which"
        label="Floor"
        label-hidden
        placeholder="Which floor"
        :options="options"
        :model-value="rows.some(({ id }) => id === planId) ? planId : null"
        @update:model-value="(id) => id && router.push({ params: { id: String(id) }, query: {} })"
      />
      <span class="grow" />
      <template v-if="plan">
        <a :href="`/api/floorplans/${plan.place.id}/geojson`" download>As GeoJSON</a>
        <NButton v-if="session.can('orders.edit')" :aria-pressed="picked !== null" @click="((picked = picked ? null : new Set()), one(null))"
          >Pick spaces</NButton
        >
        <NButton v-if="mayEdit" @click="laying = true">Picture under it</NButton>
        <NButton v-if="mayEdit" type="primary" @click="taking = true">Take in a plan</NButton>
      </template>
    </header>
    <p v-if="plans.value.value && !rows.length" class="none">
      There is no floor with spaces yet. Enter spaces in <RouterLink to="/registers/places">Places</RouterLink>, then draw them here.
    </p>
    <LoadedPart v-else-if="planId" :part="read">
      <template v-if="plan && drawing">
        <div class="both">
          <div class="board">
            <PlanDrawing
              :key="plan.place.id"
              ref="board"
              :label="`${called}. Arrow keys move it, plus and minus zoom; the list beside it says the same.`"
              :drawing="drawing"
              :chosen="chosen"
              :picked="picked ?? undefined"
              :moving="moving"
              @choose="choose"
              @move="pin.to"
              @keep="pin.keep"
              @leave="pin.leave"
            />
            <div class="zoom" role="group" aria-label="Zoom">
              <NButton aria-label="Nearer" @click="board?.zoom(0.5)">+</NButton>
              <NButton aria-label="Farther" @click="board?.zoom(-0.5)">−</NButton>
              <NButton @click="board?.fit()">Whole</NButton>
            </div>
            <p v-if="moving" class="telling" role="status">
              <strong>{{ moving.tag }}</strong> at {{ writtenAs('quantity', moving.at[0].toFixed(2)) }} m east,
              {{ writtenAs('quantity', moving.at[1].toFixed(2)) }} m north. Arrow keys move it by 10 cm, with Shift by 1 m. Enter keeps, Esc leaves.
            </p>
            <p v-else-if="!drawing.spaces.some(({ shape }) => shape)" class="telling">
              Nothing is drawn on this floor yet.<template v-if="mayEdit"> Take in a plan to begin.</template>
            </p>
          </div>
          <aside aria-label="On this floor">
            <section v-if="picked" class="about" aria-label="Picked">
              <p role="status">
                <strong>{{ counted(picked.size, 'space') }} picked.</strong> Press spaces here or on the plan; press again to leave one out.
              </p>
              <div class="acts">
                <NButton size="small" type="primary" :disabled="!picked.size" @click="makeFor(picked)">Make orders for them</NButton>
                <NButton size="small" @click="picked = new Set(plan.spaces.map(({ id }) => id))">All of the floor</NButton>
                <NButton size="small" @click="picked = null">Leave it</NButton>
              </div>
            </section>
            <section v-else-if="space" class="about" aria-label="Chosen">
              <h2>
                <RecordLink :record="{ register: 'places', id: space.id }"
                  ><span class="mono">{{ space.code }}</span> {{ space.name }}</RecordLink
                >
              </h2>
              <p>
                {{ workSays(space) ? `${workSays(space)}.` : 'Nothing is open here.' }}
                <template v-if="space.shape"> {{ writtenAs('quantity', areaOf(space.shape).toFixed(1)) }} m².</template>
                <template v-else> It is not drawn.</template>
              </p>
              <NButton v-if="mayEdit && space.shape" size="small" @click="pin.erase(space)">Erase from the plan</NButton>
            </section>
            <section v-else-if="asset" class="about" aria-label="Chosen">
              <h2>
                <RecordLink :record="{ register: 'assets', id: asset.id }"
                  ><span class="mono">{{ asset.tag }}</span> {{ asset.name }}</RecordLink
                >
              </h2>
              <p>
                {{ workSays(asset) ? `${workSays(asset)}.` : 'Nothing is open on it.'
                }}<template v-if="standsIn"> Stands in {{ standsIn.code }} {{ standsIn.name }}.</template>
              </p>
              <div v-if="mayEdit" class="acts">
                <template v-if="moving">
                  <NButton size="small" type="primary" @click="pin.keep">Keep it here</NButton>
                  <NButton size="small" @click="pin.leave">Leave it where it was</NButton>
                </template>
                <template v-else>
                  <NButton size="small" @click="begin(asset)">{{ asset.at ? 'Move it' : 'Place it' }}</NButton>
                  <NButton v-if="asset.at" size="small" @click="pin.takeOff(asset)">Take it off the plan</NButton>
                </template>
              </div>
              <div v-if="pin.elsewhere.value" class="elsewhere" role="status">
                <p>On the plan it stands in {{ pin.elsewhere.value.code }}, by its record in {{ standsIn?.code }}.</p>
                <NButton size="small" @click="pin.bringRecord">Change its record to {{ pin.elsewhere.value.code }}</NButton>
              </div>
            </section>
            <p v-else class="soft">{{ counted(plan.spaces.length, 'space') }}, {{ counted(plan.assets.length, 'asset') }}. Press one here or on the plan.</p>
            <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
            <PlanList
              id="plan-find"
              class="lines"
              :spaces="plan.spaces"
              :assets="plan.assets"
              :chosen="chosen"
              :picked="picked ?? undefined"
              @choose="choose"
            />
          </aside>
        </div>
        <TakePlan v-if="taking" :plan-id="plan.place.id" :called="called" @close="taking = false" @taken="((taking = false), read.load())" />
        <PictureForm v-if="laying" :plan="plan" @close="laying = false" @changed="show" />
      </template>
    </LoadedPart>
  </div>
</template>

<style scoped>
.page {
  height: 100%;
  display: flex;
  flex-direction: column;
  min-height: 0;
  background: var(--sheet);
}
header {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
  align-items: center;
  padding: 10px 16px;
  border-bottom: 1px solid var(--line);
}
.which {
  width: 340px;
  max-width: 100%;
}
.grow {
  flex: 1;
}
.none {
  padding: 24px 16px;
}
.both {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 340px;
}
.board {
  position: relative;
  min-height: 0;
}
.zoom {
  position: absolute;
  top: 10px;
  right: 10px;
  display: flex;
  gap: 4px;
}
.telling {
  position: absolute;
  left: 10px;
  bottom: 10px;
  max-width: calc(100% - 20px);
  padding: 6px 10px;
  background: var(--sheet);
  border: 1px solid var(--line-strong);
  border-radius: 4px;
}
aside {
  display: flex;
  flex-direction: column;
  gap: 10px;
  padding: 12px 12px 0;
  border-left: 1px solid var(--line);
  min-height: 0;
}
.about {
  display: grid;
  gap: 6px;
  justify-items: start;
  padding-bottom: 10px;
  border-bottom: 1px solid var(--line);
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.elsewhere {
  display: grid;
  gap: 6px;
  justify-items: start;
  padding-left: 8px;
  border-left: 3px solid var(--sand);
}
.lines {
  flex: 1;
  min-height: 0;
}
@media (max-width: 800px) {
  .page {
    height: auto;
    min-height: 100%;
  }
  .both {
    grid-template-columns: 1fr;
  }
  .board {
    height: 55vh;
  }
  aside {
    border-left: 0;
    border-top: 1px solid var(--line);
    padding-bottom: 16px;
  }
  .lines {
    height: 60vh;
    flex: none;
  }
}
</style>
