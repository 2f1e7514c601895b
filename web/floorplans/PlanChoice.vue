<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, ref, watch } from 'vue'
import { CallProblem, DialogBox, ListEntry } from '#web/kit'
import type { Drawing, DrawnAsset, DrawnSpace, OnPlan } from './drawn'
import PlanDrawing from './PlanDrawing.vue'
import PlanList from './PlanList.vue'

/** A place or an asset is chosen where it is: a press on the plan or in the list beside it marks it, one more press takes it. */
interface PlanOffered {
  id: number
  label: string
}
const props = defineProps<{
  title: string
  /** Whether assets can be taken, or spaces only. */
  takes: 'space' | 'either' | 'asset'
  plans: () => Promise<{ rows: PlanOffered[]; first: number | null }>
  read: (planId: number) => Promise<Drawing>
}>()
const emit = defineEmits<{ close: []; take: [what: OnPlan, thing: DrawnSpace | DrawnAsset] }>()
const rows = ref<PlanOffered[] | null>(null)
const planId = ref<number | null>(null)
const drawing = ref<Drawing | null>(null)
const chosen = ref<OnPlan | null>(null)
const wrong = ref('')

const attempt = async (act: () => Promise<void>) => {
  wrong.value = ''
  try {
    await act()
  } catch (error) {
    if (!(error instanceof CallProblem)) throw error
    wrong.value = error.message
  }
}
void attempt(async () => {
  const offered = await props.plans()
  rows.value = offered.rows
  planId.value = offered.first ?? offered.rows[0]?.id ?? null
})
watch(planId, (id) => {
  chosen.value = null
  drawing.value = null
  if (id)
    void attempt(async () => {
      const read = await props.read(id)
      if (id === planId.value) drawing.value = props.takes === 'space' ? { ...read, assets: [] } : read
    })
})
const thing = computed(() => {
  const { value: what } = chosen
  if (!what || !drawing.value) return null
  return (what.kind === 'space' ? drawing.value.spaces : drawing.value.assets).find(({ id }) => id === what.id) ?? null
})
const called = computed(() => (thing.value ? `${'tag' in thing.value ? thing.value.tag : thing.value.code} ${thing.value.name}` : ''))
const fits = computed(() => thing.value !== null && !(props.takes === 'asset' && chosen.value!.kind === 'space'))
/** What is pressed again is taken. */
function press(what: OnPlan): void {
  if (chosen.value?.kind === what.kind && chosen.value.id === what.id && fits.value) take()
  else chosen.value = what
}
const take = () => emit('take', chosen.value!, thing.value!)
</script>

<template>
  <DialogBox :title="title" broad @close="emit('close')">
    <div class="choice">
      <header>
        <h1>{{ title }}</h1>
        <ListEntry
          v-if="rows?.length"
          id="choice-plan"
          v-model="planId"
          class="which"
          label="Floor"
          label-hidden
          :options="rows.map(({ id, label }) => ({ value: id, label }))"
        />
      </header>
      <p v-if="wrong" class="problem" role="alert">{{ wrong }}</p>
      <p v-else-if="rows && !rows.length">No floor is drawn yet. Find it by its code or name.</p>
      <div v-else-if="drawing" class="both">
        <PlanDrawing
          :key="planId!"
          class="drawing"
          label="The floor. Arrow keys move it, plus and minus zoom; the list beside it says the same."
          :drawing="drawing"
          :chosen="chosen"
          @choose="press"
        />
        <PlanList id="choice-find" class="lines" :spaces="drawing.spaces" :assets="drawing.assets" :chosen="chosen" @choose="press" />
      </div>
      <div v-else class="bones both" role="status" aria-label="Loading" />
      <footer>
        <NButton type="primary" :disabled="!fits" @click="take">{{
          fits ? `Take ${called}` : takes === 'asset' ? 'Choose an asset' : 'Choose on the plan'
        }}</NButton>
        <NButton @click="emit('close')">Leave it</NButton>
      </footer>
    </div>
  </DialogBox>
</template>

<style scoped>
.choice {
  display: grid;
  gap: 10px;
}
header {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 16px;
  align-items: center;
  justify-content: space-between;
}
.which {
  width: 320px;
  max-width: 100%;
}
.both {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 260px;
  gap: 12px;
  height: min(460px, 56vh);
}
.drawing {
  border: 1px solid var(--line);
}
.lines {
  min-height: 0;
}
footer {
  display: flex;
  gap: 8px;
}
@media (max-width: 700px) {
  .both {
    grid-template-columns: 1fr;
    grid-template-rows: 220px minmax(0, 1fr);
    height: 60vh;
  }
}
</style>
