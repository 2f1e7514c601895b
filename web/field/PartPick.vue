<script setup lang="ts">
import { NRadio, NRadioGroup } from 'naive-ui/es/radio'
import { computed, ref } from 'vue'
import { carryJobs, findParts } from '#contract/field'
import type { FoundPart, PlannedPart } from '#contract/field'
import { partsWithActs } from '#core/field'
import { foldText } from '#core/kit'
import { readCode } from '#core/places'
import { useCarrying } from '#web/devices'
import { address, call, CallProblem, DecimalField, ScanButton, TextEntry, useSoon } from '#web/kit'

/** A part, scanned or found by name or code, and how many of it; told to the form it stands in. Without signal, among those that are carried along. */
const props = defineProps<{
  id: string
  problemAt: (field: string) => string | undefined
  /** What the job needs and has not taken: offered before anything is looked for. */
  planned?: readonly PlannedPart[]
}>()
const part = defineModel<FoundPart | null>({ required: true })
const quantity = defineModel<string>('quantity', { required: true })
const carrying = useCarrying()
const MOST = 12
const text = ref('')
const wrong = ref('')
const parts = ref<FoundPart[]>([])
const acts = () => carrying.acts.map(({ body }) => body)
/** Copies that were read by programs of an earlier day do not say where it lies. */
const carried = async () =>
  ((await carrying.kept<{ parts: FoundPart[] }>(address(carryJobs, {})))?.parts ?? []).map((one) => ({ ...one, lies: one.lies ?? [] }))

async function carriedLike(q: string): Promise<FoundPart[]> {
  const words = foldText(q).split(' ')
  return (await carried()).filter(({ name, code }) => words.every((word) => foldText(`${name} ${code}`).includes(word))).slice(0, MOST)
}
/** While there is no signal, nobody waits for an answer that does not come. */
const matching = (q: string): Promise<FoundPart[]> =>
  carrying.away
    ? carriedLike(q)
    : call(findParts, { q }).then(
        ({ rows }) => rows,
        (error: unknown) => {
          if (error instanceof CallProblem) return carriedLike(q)
          throw error
        },
      )
async function lookNow(): Promise<void> {
  const q = text.value
  const found = partsWithActs(await matching(q), acts())
  if (q !== text.value) return
  const first = q ? [] : (props.planned ?? []).flatMap(({ partId }) => found.filter(({ id }) => id === partId))
  parts.value = [...first, ...found.filter((one) => !first.includes(one))]
}
const look = useSoon(lookNow, 150)
function type(): void {
  wrong.value = ''
  look()
}

/** What is planned is found by its code, however many parts there are. */
async function begin(): Promise<void> {
  await lookNow()
  for (const { code, partId } of (props.planned ?? []).filter((one) => !parts.value.some(({ id }) => id === one.partId))) {
    const found = partsWithActs(await matching(code), acts()).find(({ id }) => id === partId)
    if (found) parts.value = [found, ...parts.value]
  }
}
void begin()

const plannedOf = (id: number) => props.planned?.find(({ partId }) => partId === id)
const chosen = computed({
  get: () => part.value?.id ?? null,
  set: (id) => {
    const one = parts.value.find((found) => found.id === id) ?? null
    part.value = one
    // What was just chosen is known to the form a little later.
    const plan = one && plannedOf(one.id)
    if (plan) quantity.value = plan.quantity
  },
})

async function scanned(label: string): Promise<void> {
  const { kind, code } = readCode(label)
  text.value = code
  const found = partsWithActs(await matching(code), acts())
  parts.value = found
  const exact = found.filter((one) => foldText(one.code) === foldText(code))
  if (exact.length === 1 && (kind === null || kind === 'part')) chosen.value = exact[0]!.id
  else wrong.value = found.length ? '' : `There is no part ${code}.`
}
const quantityField = ref<InstanceType<typeof DecimalField> | null>(null)
/** Takes what is typed; false where it can mean nothing. */
defineExpose({ leave: () => quantityField.value!.leave() })
</script>

<template>
  <TextEntry :id="`${props.id}-text`" v-model="text" label="Part by name or code" kind="search" @input="type" @keydown.enter.prevent="scanned(text)" />
  <ScanButton what="its code" @code="scanned" />
  <p v-if="wrong" class="problem" role="alert">{{ wrong }}</p>
  <NRadioGroup v-model:value="chosen" class="list" :name="props.id" role="radiogroup" aria-label="Parts">
    <NRadio v-for="one in parts" :key="one.id" :value="one.id">
      {{ one.name }} <span class="label mono">{{ one.code }}</span><br /><span class="label"
        ><strong v-if="plannedOf(one.id)">{{ Number(plannedOf(one.id)!.quantity) }} planned, </strong>{{ Number(one.inStock) }} {{ one.unit }} free</span
      >
    </NRadio>
  </NRadioGroup>
  <DecimalField
    :id="`${props.id}-quantity`"
    ref="quantityField"
    label="How many"
    kind="quantity"
    required
    :value="quantity"
    :problem="problemAt('quantity')"
    @save="quantity = $event as string"
  />
</template>

<style scoped>
.list {
  display: grid;
  grid-auto-rows: max-content;
  max-height: 260px;
  overflow: auto;
}
.list > * {
  min-height: 48px;
  align-items: center;
}
p {
  margin: 0;
}
</style>
