<script setup lang="ts">
import { listCounterPlans, readCounterPlan } from '#contract/floorplans'
import { readCounterSpot } from '#contract/requests'
import type { CounterSpot } from '#contract/requests'
import { ref } from 'vue'
import { call, CallProblem } from '#web/kit'
import type { Drawing, DrawnAsset, DrawnSpace, OnPlan } from './drawn'
import FromPlan from './FromPlan.vue'

/** At the Counter: rooms, and machines where they are asked for. What is taken is looked up as if its label had been scanned. */
const props = defineProps<{ site: string; withAssets: boolean }>()
const emit = defineEmits<{ pick: [spot: CounterSpot] }>()
const wrong = ref('')
async function plans() {
  const { rows } = await call(listCounterPlans, { site: props.site })
  return { rows: rows.map(({ id, name, within, code }) => ({ id, label: `${[name, within].filter(Boolean).join(', ')} (${code})` })), first: null }
}
async function read(id: number): Promise<Drawing> {
  const { spaces, assets } = await call(readCounterPlan, { site: props.site, id })
  return { spaces, assets: assets.map((asset, index) => ({ id: index + 1, ...asset })) }
}
async function take(_: OnPlan, thing: DrawnSpace | DrawnAsset): Promise<void> {
  const asked = 'tag' in thing ? { asset: thing.tag } : { place: thing.code }
  wrong.value = ''
  try {
    emit('pick', await call(readCounterSpot, { site: props.site, ...asked }))
  } catch (error) {
    if (!(error instanceof CallProblem)) throw error
    wrong.value = error.message
  }
}
</script>

<template>
  <FromPlan title="Where it is" :takes="withAssets ? 'either' : 'space'" :plans="plans" :read="read" @take="take" />
  <p v-if="wrong" class="problem" role="alert">{{ wrong }}</p>
</template>
