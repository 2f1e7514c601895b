<script setup lang="ts">
import { findOnFloorplan, listFloorplans, readFloorplan } from '#contract/floorplans'
import { call } from '#web/kit'
import { drawingOf } from './drawingOf'
import type { DrawnAsset, DrawnSpace, OnPlan } from './drawn'
import FromPlan from './FromPlan.vue'

/** At the desk: the plan opens on the floor of the place that is known already. */
const props = defineProps<{ of: 'place' | 'asset'; near: number | null }>()
const emit = defineEmits<{ pick: [id: number, label: string] }>()
async function plans() {
  const [{ rows }, near] = await Promise.all([
    call(listFloorplans, {}),
    props.near ? call(findOnFloorplan, { kind: 'places', id: props.near }).catch(() => null) : null,
  ])
  const drawn = rows.filter((row) => row.drawn)
  return {
    rows: drawn.map(({ id, code, name, within }) => ({ id, label: `${code} ${[name, within].filter(Boolean).join(', ')}` })),
    first: drawn.find(({ id }) => id === near?.planId)?.id ?? null,
  }
}
const read = async (id: number) => drawingOf(await call(readFloorplan, { id }))
function take({ id }: OnPlan, thing: DrawnSpace | DrawnAsset): void {
  emit('pick', id, `${'tag' in thing ? thing.tag : thing.code} ${thing.name}`)
}
</script>

<template>
  <FromPlan
    brief
    :title="of === 'place' ? 'Where it is' : 'Which machine'"
    :takes="of === 'place' ? 'space' : 'asset'"
    :plans="plans"
    :read="read"
    @take="take"
  />
</template>
