<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, ref } from 'vue'
import type { FloorAround } from '#contract/findings'
import { boundsOf } from '#core/floorplans'
import type { Point } from '#core/floorplans'
import { PlanDrawing } from '#web/floorplans'
import { DialogBox, ListEntry } from '#web/kit'
import { spaceAt, spotSays } from './found'

/** A pin on the plan of a floor: to look at, or to be put where something was found. */
const props = defineProps<{ floors: readonly FloorAround[]; pin: { planId: number; at: Point } | null; nearCode?: string | null; fixed?: boolean }>()
const emit = defineEmits<{ put: [pin: { planId: number; at: Point }]; close: [] }>()
const drawn = computed(() => props.floors.filter(({ spaces }) => spaces.some(({ shape }) => shape)))
/** Where it is said to be: on that floor the plan opens, and that room is marked. */
const near = props.floors.find(({ code, spaces }) => code === props.nearCode || spaces.some((space) => space.code === props.nearCode))
const planId = ref<number | null>(props.pin?.planId ?? near?.id ?? drawn.value[0]?.id ?? null)
const floor = computed(() => drawn.value.find(({ id }) => id === planId.value))
const at = ref<Point | null>(props.pin?.at ?? null)
const isHere = computed(() => at.value !== null && (props.pin === null || props.pin.planId === planId.value || moved.value))
const moved = ref(false)
const inside = computed(() => (isHere.value ? spaceAt(floor.value, at.value!) : null))
const marked = computed(() => {
  const id = inside.value?.placeId ?? floor.value?.spaces.find(({ code }) => code === props.nearCode)?.id
  return id && !props.fixed ? ({ kind: 'space', id } as const) : null
})
const options = computed(() => drawn.value.map(({ id, code, name }) => ({ value: id, label: `${code} ${name}` })))
function move(to: Point): void {
  at.value = to
  moved.value = true
}
/** Without a finger: the pin begins in the middle, and the arrow keys move it. */
function begin(): void {
  const box = boundsOf(floor.value!.spaces.flatMap(({ shape }) => shape?.flat() ?? []))!
  move([(box.west + box.east) / 2, (box.south + box.north) / 2])
}
</script>

<template>
  <DialogBox :title="fixed ? 'Where it was found' : 'Where on the plan'" wide @close="emit('close')">
    <div class="pin">
      <ListEntry v-if="drawn.length > 1 && !fixed" id="pin-floor" v-model="planId" label="Floor" :options="options" />
      <p v-else-if="floor" class="soft">{{ floor.code }} {{ floor.name }}</p>
      <p v-if="!floor" class="soft">No floor of this building is drawn yet.</p>
      <div v-else class="drawing">
        <PlanDrawing
          :key="planId!"
          :label="`Plan of ${floor.name}. ${fixed ? '' : 'Press where it is; the arrow keys move the pin.'}`"
          :drawing="floor"
          :chosen="marked"
          :moving="isHere ? { id: 0, at: at! } : null"
          :pinning="!fixed"
          @move="(to) => fixed || move(to)"
          @keep="isHere && !fixed && emit('put', { planId: planId!, at: at! })"
          @leave="emit('close')"
        />
      </div>
      <p v-if="!fixed && floor" class="soft" role="status">
        {{ inside ? `In ${spotSays(inside)}.` : isHere ? 'Not in a room that is drawn.' : 'Press where it is.' }}
      </p>
      <div class="acts">
        <NButton v-if="!fixed && floor && !isHere" @click="begin">Put it in the middle</NButton>
        <NButton v-if="!fixed && isHere" type="primary" @click="emit('put', { planId: planId!, at: at! })">Keep the pin</NButton>
        <NButton @click="emit('close')">{{ fixed ? 'Close' : 'Leave it' }}</NButton>
      </div>
    </div>
  </DialogBox>
</template>

<style scoped>
.pin {
  display: grid;
  gap: 10px;
}
.pin p {
  margin: 0;
}
.drawing {
  height: min(52vh, 460px);
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
</style>
