<script setup lang="ts">
import { computed, defineAsyncComponent } from 'vue'
import { RouterLink } from 'vue-router'
import { findOnFloorplan, readFloorplan } from '#contract/floorplans'
import type { AnyRecord } from '#contract/portraits'
import { LoadedPart, usePortrait, useRead } from '#web/kit'
import { useOpenSheet } from '#web/sheets'
import { drawingOf } from './drawingOf'
import type { OnPlan } from './drawn'

/** Where it is on the plan of its floor. */
const PlanDrawing = defineAsyncComponent(() => import('./PlanDrawing.vue'))
const { sheet: it } = useOpenSheet<AnyRecord>()
const portrait = usePortrait()
const touchedBy = ({ kind, register }: { kind: string; register: string | null }) => kind.startsWith('floorplan.') || register === it.value.register
const found = useRead(findOnFloorplan, () => ({ kind: it.value.register as 'places' | 'assets', id: it.value.id }), { touchedBy })
const planId = computed(() => (found.value.value?.drawn ? found.value.value.planId : null))
const read = useRead(readFloorplan, () => (planId.value ? { id: planId.value } : null), { touchedBy })
const itself = computed<OnPlan | null>(() =>
  it.value.id === planId.value && it.value.register === 'places' ? null : { kind: it.value.register === 'places' ? 'space' : 'asset', id: it.value.id },
)
const address = computed(() => `/floorplans/${found.value.value?.planId}${itself.value ? `?${itself.value.kind}=${itself.value.id}` : ''}`)
const open = ({ kind, id }: OnPlan) => portrait.open({ register: kind === 'space' ? 'places' : 'assets', id })
</script>

<template>
  <LoadedPart :part="found">
    <p v-if="!found.value.value?.planId" class="soft">It stands on no floor that could be drawn.</p>
    <p v-else-if="!planId" class="soft">It is not drawn yet. <RouterLink :to="address">Open the plan of its floor</RouterLink></p>
    <template v-else>
      <div class="frame">
        <LoadedPart :part="read">
          <PlanDrawing
            v-if="read.value.value"
            label="Where it is on its floor. Arrow keys move the plan."
            still
            :drawing="drawingOf(read.value.value)"
            :chosen="itself"
            @choose="open"
          />
        </LoadedPart>
      </div>
      <p><RouterLink :to="address">Open the plan</RouterLink></p>
    </template>
  </LoadedPart>
</template>

<style scoped>
.frame {
  height: 260px;
  border: 1px solid var(--line);
}
.frame :deep(.bones) {
  height: 100%;
}
</style>
