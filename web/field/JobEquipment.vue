<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { ref } from 'vue'
import { carryJobs } from '#contract/field'
import type { JobEquipment } from '#contract/field'
import { BOOKING_STATE_NAMES } from '#core/bookings'
import { foldText } from '#core/kit'
import { readCode } from '#core/places'
import { useCarrying } from '#web/devices'
import { ScanButton, shortTime, TextEntry } from '#web/kit'
import type { CallProblem } from '#web/kit'

/** Equipment of the job: taken along and given back by its tag, scanned or typed. */
const props = defineProps<{ equipment: readonly JobEquipment[]; over: boolean; busy: boolean; problem: CallProblem | null }>()
type Piece = { equipmentId: number; tag: string; name: string }
const emit = defineEmits<{ take: [piece: Piece]; back: [piece: Piece, note: string] }>()
const carrying = useCarrying()
const asking = ref(false)
const tag = ref('')
const wrong = ref('')
/** Which of them is being given back. */
const giving = ref<number | null>(null)
const note = ref('')

/** What is with the job is given back, anything else is taken: one scan either way. */
async function read(text: string): Promise<void> {
  wrong.value = ''
  const { kind, code } = readCode(text)
  if (!code) return
  const here = props.equipment.find((one) => foldText(one.tag) === foldText(code))
  if (here?.state === 'out') return give(here.equipmentId)
  if (here) return take(here)
  const { equipment = [] } = await carrying.readAny(carryJobs, {}).catch(() => ({ equipment: [] as { id: number; tag: string; name: string }[] }))
  const found = kind === null || kind === 'equipment' ? equipment.find((one) => foldText(one.tag) === foldText(code)) : undefined
  if (found) take({ ...found, equipmentId: found.id })
  else wrong.value = `There is no equipment ${code} here.`
}
function take({ equipmentId, tag: of, name }: Piece): void {
  emit('take', { equipmentId, tag: of, name })
  asking.value = false
  tag.value = ''
}
function give(equipmentId: number): void {
  giving.value = equipmentId
  note.value = ''
  asking.value = false
}
function giveBack({ equipmentId, tag: of, name }: Piece): void {
  emit('back', { equipmentId, tag: of, name }, note.value.trim())
  giving.value = null
}
</script>

<template>
  <section class="card" aria-label="Equipment">
    <h2>Equipment</h2>
    <ul v-if="equipment.length" class="things">
      <li v-for="one in equipment" :key="one.equipmentId">
        <span
          ><span class="mono">{{ one.tag }}</span> {{ one.name }}<br /><span class="label"
            >{{ BOOKING_STATE_NAMES[one.state] }}{{ one.has ? ` to ${one.has}` : ''
            }}{{ one.state === 'booked' && one.until ? ` until ${shortTime(one.until)}` : '' }}</span
          ></span
        >
        <form v-if="giving === one.equipmentId" :aria-label="`Give back ${one.name}`" @submit.prevent="giveBack(one)">
          <TextEntry id="equipment-note" v-model="note" label="Anything to say of it" :max="300" />
          <div class="halves">
            <NButton type="primary" attr-type="submit" :disabled="busy">Give it back</NButton><NButton @click="giving = null">Not now</NButton>
          </div>
        </form>
        <NButton v-else-if="one.state === 'out'" size="small" :disabled="busy" :aria-label="`Give back ${one.name}`" @click="give(one.equipmentId)"
          >Give back</NButton
        >
        <NButton v-else-if="!over" size="small" :disabled="busy" :aria-label="`Take ${one.name}`" @click="take(one)">Take</NButton>
      </li>
    </ul>
    <p v-else class="label">Nothing is booked for this job.</p>
    <p v-if="problem" class="problem" role="alert">{{ problem.reasons[0]?.sentence ?? problem.message }}</p>
    <template v-if="asking">
      <TextEntry id="equipment-tag" v-model="tag" label="Tag of the equipment" mono @keydown.enter.prevent="read(tag)" />
      <ScanButton what="its tag" @code="read" />
      <p v-if="wrong" class="problem" role="alert">{{ wrong }}</p>
      <div class="halves">
        <NButton type="primary" :disabled="busy || !tag.trim()" @click="read(tag)">Take or give back</NButton><NButton @click="asking = false">Not now</NButton>
      </div>
    </template>
    <NButton v-else-if="!over" @click="asking = true">Other equipment</NButton>
  </section>
</template>

<style scoped>
p {
  margin: 0;
}
</style>
