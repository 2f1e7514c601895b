<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { ref } from 'vue'
import { RouterLink, useRoute } from 'vue-router'
import { listJobDocuments, readJobDocument } from '#contract/documents'
import * as contract from '#contract/field'
import type { JobSheet } from '#contract/field'
import { readAttachment } from '#contract/orders'
import { FileEntry, PhonePage, address, call, onLiveChange, PriorityBar, ProblemNote, shortTime, useLoading, useSoon } from '#web/kit'
import { SharedDocuments } from '#web/documents'
import { JobSteps } from '#web/methods'
import ClockCard from './ClockCard.vue'
import FinishForm from './FinishForm.vue'
import JobFacts from './JobFacts.vue'
import NoteForm from './NoteForm.vue'
import PartPick from './PartPick.vue'
import { usePhoneJob } from './usePhoneJob'

/** One job at a time, gloves on: clock, part, photo, note, finish. */
const visitId = Number(useRoute().params.visitId)
const job = useLoading(() => call(contract.readJob, { visitId }))
void job.load()
onLiveChange(useSoon(job.load, 200))
const { it, busy, problem, open, note, over, act, photo, addNote } = usePhoneJob<JobSheet, 'part' | 'note' | 'finish'>(job, (file) =>
  call(contract.addJobPhoto, { visitId }, { file }),
)
const partId = ref<number | null>(null)
const quantity = ref('1')
const picked = ref<InstanceType<typeof PartPick> | null>(null)
function usePart(): void {
  if (picked.value!.leave()) void act(() => call(contract.usePart, { visitId, partId: partId.value!, quantity: quantity.value }))
}
</script>

<template>
  <PhonePage>
    <header>
      <p><RouterLink to="/rounds">All jobs</RouterLink></p>
      <h1>{{ it?.summary ?? 'Job' }}</h1>
      <p v-if="it">
        <span class="mono">{{ it.number }}</span>
      </p>
    </header>
    <main>
      <ProblemNote v-if="job.problem.value && !it" :problem="job.problem.value" @retry="job.load" />
      <template v-else-if="it">
        <p v-if="it.priority"><PriorityBar :priority="it.priority" /></p>
        <p v-if="problem && !open" class="problem" role="alert">{{ problem.reasons[0]?.sentence ?? problem.message }}</p>
        <ClockCard
          :running="it.running"
          :stints="it.stints"
          :over="over"
          :busy="busy"
          corrects
          :problem="problem"
          @correct="(asked) => act(() => call(contract.correctStint, { visitId, ...asked }))"
          @switch="(kind) => act(() => call(contract.switchStint, { visitId, kind }))"
          @stop="(stoppedAt) => act(() => call(contract.stopClock, { visitId, stoppedAt }))"
        />
        <FinishForm
          v-if="open === 'finish'"
          :outcome="it.outcome"
          parts
          :open-members="it.openMembers"
          :busy="busy"
          :sentence-at="(field) => problem?.at(field)"
          @finish="(leaving) => act(() => call(contract.finishJob, { visitId, ...leaving }))"
          @leave="open = null"
        />
        <form v-if="open === 'part'" class="card" aria-label="Use a part" @submit.prevent="usePart">
          <h2>Use a part</h2>
          <PartPick id="part" ref="picked" v-model="partId" v-model:quantity="quantity" :problem-at="(field) => problem?.at(field)" />
          <p v-if="problem" class="problem" role="alert">{{ problem.reasons[0]?.sentence ?? problem.message }}</p>
          <NButton type="primary" attr-type="submit" :disabled="busy || !partId">Use it</NButton>
          <NButton @click="open = null">Not now</NButton>
        </form>
        <NoteForm
          v-if="open === 'note'"
          v-model="note"
          :busy="busy"
          :problem="problem"
          @add="addNote((text) => call(contract.addNote, { visitId, text }))"
          @leave="open = null"
        />
        <JobFacts :job="it" />
        <JobSteps :visit-id="visitId" />
        <SharedDocuments :read="() => call(listJobDocuments, { visitId })" :url-of="(fileId) => address(readJobDocument, { visitId, fileId })" />
        <section v-if="it.parts.length" class="card" aria-label="Parts used">
          <h2>Parts used</h2>
          <p v-for="part in it.parts" :key="part.id">{{ Number(part.quantity) }} {{ part.unit }} {{ part.name }}</p>
        </section>
        <section v-if="it.notes.length" class="card" aria-label="Notes">
          <h2>Notes</h2>
          <p v-for="(one, index) in it.notes" :key="index" class="text">
            <span class="label">{{ shortTime(one.at) }} {{ one.who }}</span
            ><br />{{ one.text }}
          </p>
        </section>
        <section v-if="it.photos.length" class="card" aria-label="Photos">
          <h2>Photos</h2>
          <div class="thumbs">
            <img v-for="(one, index) in it.photos" :key="one.id" :src="address(readAttachment, { id: one.id })" :alt="`Photo ${index + 1}`" />
          </div>
        </section>
        <section class="card" aria-label="Earlier here">
          <h2>Earlier {{ it.asset ? 'on this asset' : 'here' }}</h2>
          <p v-for="one in it.earlier" :key="one.number">
            <span class="mono label">{{ one.number }}, {{ shortTime(one.finishedAt) }}</span
            ><br />{{ [one.symptom, one.cause, one.fix].filter(Boolean).join(', ') || 'No outcome recorded' }}
          </p>
          <p v-if="!it.earlier.length" class="label">Nothing was done here before.</p>
        </section>
      </template>
      <div v-else class="bones wait" />
    </main>
    <div v-if="it && !over" class="bar">
      <div>
        <NButton @click="open = 'part'">Part</NButton>
        <FileEntry id="photo" label-hidden label="Photo" press="Photo" accept="image/*" :disabled="busy" @choose="photo" />
        <NButton @click="open = 'note'">Note</NButton>
        <NButton type="primary" :disabled="it.visitState !== 'on_site'" @click="open = 'finish'">Finish</NButton>
      </div>
    </div>
  </PhonePage>
</template>
