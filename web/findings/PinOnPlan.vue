<script setup lang="ts">
import { readFloorplan } from '#contract/floorplans'
import type { FindingPin } from '#contract/field'
import { drawingOf, PlanDrawing } from '#web/floorplans'
import { DialogBox, LoadedPart, useRead } from '#web/kit'
import { RouterLink } from 'vue-router'

/** Where something was found, at the desk. */
const props = defineProps<{ pin: FindingPin }>()
defineEmits<{ close: [] }>()
const read = useRead(readFloorplan, () => ({ id: props.pin.planId }))
</script>

<template>
  <DialogBox title="Where it was found" wide @close="$emit('close')">
    <LoadedPart :part="read">
      <p>
        <strong>{{ read.value.value!.place.name }}</strong> <span class="soft">{{ read.value.value!.place.within }}</span>
        <RouterLink class="whole" :to="`/floorplans/${pin.planId}`">The whole plan</RouterLink>
      </p>
      <div class="drawing">
        <PlanDrawing
          :label="`Plan of ${read.value.value!.place.name} with a pin where it was found`"
          :drawing="drawingOf(read.value.value!)"
          :chosen="null"
          :moving="{ id: 0, at: pin.at }"
          @leave="$emit('close')"
        />
      </div>
    </LoadedPart>
  </DialogBox>
</template>

<style scoped>
.drawing {
  height: min(60vh, 520px);
}
.whole {
  float: right;
}
p {
  margin: 0 0 8px;
}
</style>
