<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { ref } from 'vue'
import { RouterLink } from 'vue-router'
import { endClosure } from '#contract/closures'
import type { Closure, OrderClosures } from '#contract/closures'
import { CLOSURE_STANDING_NAMES } from '#core/closures'
import { call, RecordLink, shortTime, spanTime } from '#web/kit'
import { useLineAct } from '#web/sheets'
import AffectedList from './AffectedList.vue'
import ClosureForm from './ClosureForm.vue'

/** One space out of use: when, why, whether the bookings system knows, and whom it meets. */
const props = defineProps<{ closure: Closure; closures?: OrderClosures; summary?: string; ofPlace?: boolean }>()
const emit = defineEmits<{ changed: [] }>()
const moving = ref(false)
const { act, busy, first } = useLineAct<OrderClosures>(() => emit('changed'))
const open = () => props.closure.standing === 'ahead' || props.closure.standing === 'running'
function toldSays({ told, toldAt, problem, standing }: Closure): string {
  if (told === 'waiting') return problem ? `${problem} It is told again by itself.` : 'The bookings system is being told.'
  if (told === 'unknown') return 'The bookings system does not know this space.'
  if (told === 'none' || !toldAt) return ''
  return standing === 'called_off' ? `Taken out of the bookings system ${shortTime(toldAt)}.` : `In the bookings system since ${shortTime(toldAt)}.`
}
const end = () =>
  act(
    () => call(endClosure, { id: props.closure.id, version: props.closure.version }),
    props.closure.standing === 'running' ? 'It is back in use.' : 'It stays in use.',
  )
</script>

<template>
  <li class="closure" :class="{ past: !open() }">
    <div class="line">
      <RouterLink v-if="ofPlace" class="mono" :to="`/desk/planning/order/${closure.order.id}`">{{ closure.order.number }}</RouterLink>
      <RecordLink v-else :record="{ register: 'places', id: closure.place.id }"
        ><span class="mono">{{ closure.place.code }}</span> {{ closure.place.name }}</RecordLink
      >
      <span class="mono">{{ spanTime(closure.from, closure.until) }}</span>
      <strong :class="{ soft: !open() }">{{ CLOSURE_STANDING_NAMES[closure.standing] }}</strong>
      <span>{{ closure.reason }}</span>
      <span v-if="open() && closures?.mayClose" class="acts">
        <NButton size="tiny" :aria-label="`Another time for ${closure.place.code}`" @click="moving = !moving">Another time</NButton>
        <NButton
          size="tiny"
          quaternary
          :disabled="busy"
          :aria-label="`${closure.standing === 'running' ? 'Give back' : 'Call off'} ${closure.place.code}`"
          @click="end"
          >{{ closure.standing === 'running' ? 'Give it back now' : 'Call it off' }}</NButton
        >
      </span>
    </div>
    <p class="soft">
      <template v-if="closure.plannedUntil">It was to end {{ shortTime(closure.plannedUntil) }}. </template>{{ toldSays(closure)
      }}<template v-if="closure.atCounter"> Occupants are told at the Counter.</template>
    </p>
    <AffectedList v-if="open() && closure.affects.length" :bookings="closure.affects" />
    <ClosureForm
      v-if="moving && closures"
      :order-id="closure.order.id"
      :closures="closures"
      :closure="closure"
      :summary="summary ?? ''"
      @leave="moving = false"
      @done="((moving = false), emit('changed'))"
    />
    <p v-if="first" class="problem" role="alert">{{ first }}</p>
  </li>
</template>

<style scoped>
.closure {
  list-style: none;
  padding: 4px 0 8px;
}
.line {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  align-items: baseline;
}
.closure p {
  margin: 2px 0;
}
.acts {
  display: flex;
  gap: 6px;
  margin-left: auto;
}
</style>
