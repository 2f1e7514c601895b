<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { NCheckbox } from 'naive-ui/es/checkbox'
import { computed, ref } from 'vue'
import { readLoneWork, setLoneWork } from '#contract/field'
import type { LoneWork } from '#contract/field'
import { CHECK_IN_LEAST, CHECK_IN_MOST } from '#core/field'
import { call, NumberEntry, shortTime, useRead } from '#web/kit'
import { useLineAct } from '#web/sheets'

/** Whether whoever goes works alone there and checks in, and how they are. */
const props = defineProps<{ orderId: number; mayEdit: boolean }>()
const USUAL_MINUTES = 30
const read = useRead(readLoneWork, () => ({ orderId: props.orderId }), {
  holds: true,
  touchedBy: ({ orderId, kind }) => orderId === props.orderId && /^(lone|field|order)\./.test(kind),
  every: 60_000,
})
const it = computed(() => read.value.value)
const { act, at, busy } = useLineAct<LoneWork>((now) => void (read.value.value = now))
const open = ref(false)
const every = ref<number | null>(USUAL_MINUTES)
function mark(on: boolean): void {
  every.value = it.value?.everyMinutes ?? USUAL_MINUTES
  if (on) open.value = true
  else void set(null)
}
async function set(everyMinutes: number | null): Promise<void> {
  const says = everyMinutes === null ? 'Nobody is asked to check in.' : `Whoever works there checks in every ${everyMinutes} minutes.`
  if (await act(() => call(setLoneWork, { orderId: props.orderId, everyMinutes }), says)) open.value = false
}
</script>

<template>
  <div v-if="it && (mayEdit || it.everyMinutes !== null)" class="alone" role="group" aria-label="Working alone">
    <NCheckbox :checked="it.everyMinutes !== null || open" :disabled="!mayEdit || busy" @update:checked="mark">Whoever does it works alone</NCheckbox>
    <span v-if="it.everyMinutes !== null && !open">
      and checks in every {{ it.everyMinutes }} minutes
      <NButton v-if="mayEdit" text size="small" type="primary" @click="mark(true)">Change</NButton>
    </span>
    <form v-if="open" class="line" @submit.prevent="set(every)" @keydown.esc.stop="open = false">
      <NumberEntry
        id="alone-every"
        v-model="every"
        label="Checks in every"
        unit="min"
        :least="CHECK_IN_LEAST"
        :most="CHECK_IN_MOST"
        :problem="at('everyMinutes')"
      />
      <NButton attr-type="submit" type="primary" :disabled="busy || every === null">Keep it</NButton>
      <NButton @click="open = false">Leave it</NButton>
    </form>
    <p v-for="one in it.watched" :key="one.name" :class="{ overdue: one.overdue }" :role="one.overdue ? 'alert' : undefined">
      <strong>{{ one.name }}</strong> {{ one.overdue ? 'should have checked in by' : 'was all right' }} {{ shortTime(one.overdue ? one.dueAt : one.checkedAt)
      }}<template v-if="!one.overdue">, next by {{ shortTime(one.dueAt) }}</template
      ><template v-if="one.phone">
        · <a class="mono" :href="`tel:${one.phone.replace(/ /g, '')}`">{{ one.phone }}</a></template
      >
    </p>
  </div>
</template>

<style scoped>
.alone {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 10px;
  align-items: center;
  margin-top: 10px;
}
.line {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: end;
  flex: 1 0 100%;
}
.alone p {
  flex: 1 0 100%;
  margin: 0;
}
.overdue {
  color: var(--buoy);
}
</style>
