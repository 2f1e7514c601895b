<script setup lang="ts">
import { NRadio, NRadioGroup } from 'naive-ui/es/radio'
import { computed, ref } from 'vue'
import { carryJobs, findParts } from '#contract/field'
import type { CarriedPart } from '#contract/field'
import { foldText } from '#core/kit'
import { useCarrying } from '#web/devices'
import { address, call, CallProblem, DecimalField, TextEntry, useSoon } from '#web/kit'

/** A part, found by name or code, and how many of it; told to the form it stands in. Without signal, among those that are carried along. */
const props = defineProps<{ id: string; problemAt: (field: string) => string | undefined }>()
const part = defineModel<CarriedPart | null>({ required: true })
const quantity = defineModel<string>('quantity', { required: true })
const carrying = useCarrying()
const MOST = 12
const text = ref('')
const parts = ref<CarriedPart[]>([])
const look = useSoon(async () => {
  const q = text.value
  parts.value = await call(findParts, { q }).then(
    ({ rows }) => rows,
    async (error: unknown) => {
      if (!(error instanceof CallProblem)) throw error
      const words = foldText(q).split(' ')
      const carried = (await carrying.kept<{ parts: CarriedPart[] }>(address(carryJobs, {})))?.parts ?? []
      return carried.filter(({ name, code }) => words.every((word) => foldText(`${name} ${code}`).includes(word))).slice(0, MOST)
    },
  )
}, 150)
look()
const chosen = computed({
  get: () => part.value?.id ?? null,
  set: (id) => (part.value = parts.value.find((one) => one.id === id) ?? null),
})
const quantityField = ref<InstanceType<typeof DecimalField> | null>(null)
/** Takes what is typed; false where it can mean nothing. */
defineExpose({ leave: () => quantityField.value!.leave() })
</script>

<template>
  <TextEntry :id="`${props.id}-text`" v-model="text" label="Part of name or code" kind="search" @input="look" />
  <NRadioGroup v-model:value="chosen" class="list" :name="props.id" role="radiogroup" aria-label="Parts">
    <NRadio v-for="one in parts" :key="one.id" :value="one.id">
      {{ one.name }} <span class="label mono">{{ one.code }}</span><br /><span class="label">{{ Number(one.inStock) }} {{ one.unit }} in stock</span>
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
  max-height: 260px;
  overflow: auto;
}
.list > * {
  min-height: 48px;
  align-items: center;
}
</style>
