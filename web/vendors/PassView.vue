<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, ref } from 'vue'
import { useRoute } from 'vue-router'
import * as contract from '#contract/vendors'
import type { PassSheet } from '#contract/vendors'
import { formatMinor } from '#core/kit'
import { address, FileEntry, PhonePage, call, longTime, ProblemNote, shortTime, showNumbersOf, showTimesOf, useLoading } from '#web/kit'
import { ClockCard, FinishForm, JobFacts, NoteForm, usePhoneJob } from '#web/field'
import { listPassDocuments, readPassDocument } from '#contract/documents'
import { SharedDocuments } from '#web/documents'
import AnswerCard from './AnswerCard.vue'
import BillForm from './BillForm.vue'

/** A vendor's one job, without an account. */
const token = String(useRoute().params.token)
const pass = useLoading(() => call(contract.readPass, { token }))
function write({ zone, currency, writing }: contract.PassSheet): void {
  showTimesOf({ zone, ...writing })
  showNumbersOf({ currency, ...writing })
}
void pass.load().then(() => pass.value.value && write(pass.value.value))
const { it, busy, problem, open, note, over, act, photo, addNote } = usePhoneJob<PassSheet, 'note' | 'finish' | 'bill'>(pass, (file) =>
  call(contract.addVendorPhoto, { token }, { file }),
)
/** Nothing is left to read by this link then. */
const declined = ref(false)
const decline = (note: string) =>
  act(async () => {
    await call(contract.declineVisit, { token, note })
    declined.value = true
    return it.value!
  })
const mayBill = computed(() => it.value && !it.value.bill && (it.value.orderState === 'on_job' || it.value.orderState === 'done'))
</script>

<template>
  <PhonePage>
    <header>
      <p v-if="it">{{ it.vendor }} for {{ it.site }}</p>
      <h1>{{ it?.summary ?? 'Your job' }}</h1>
      <p v-if="it">
        <span class="mono">{{ it.number }}</span>
      </p>
    </header>
    <main>
      <ProblemNote v-if="pass.problem.value && !it" :problem="pass.problem.value" @retry="pass.load" />
      <template v-else-if="it">
        <p v-if="problem && !open && it.visitState !== 'planned'" class="problem" role="alert">{{ problem.reasons[0]?.sentence ?? problem.message }}</p>
        <p v-if="declined" class="card standing" role="status">You declined this job. The desk has been told.</p>
        <AnswerCard
          v-else-if="it.visitState === 'planned'"
          :key="it.plannedStart + it.answer"
          :job="it"
          :busy="busy"
          :problem="problem"
          @accept="act(() => call(contract.acceptVisit, { token, plannedStart: it!.plannedStart }))"
          @propose="(time) => act(() => call(contract.proposeTime, { token, plannedStart: it!.plannedStart, ...time }))"
          @decline="decline"
        />
        <ClockCard
          v-if="!declined"
          :running="it.running"
          :stints="it.stints"
          :over="over"
          :busy="busy"
          @switch="(kind) => act(() => call(contract.switchVendorStint, { token, kind }))"
          @stop="(stoppedAt) => act(() => call(contract.stopVendorClock, { token, stoppedAt }))"
        />
        <FinishForm
          v-if="open === 'finish'"
          :outcome="it.outcome"
          :busy="busy"
          :sentence-at="(field) => problem?.at(field)"
          @finish="(leaving) => act(() => call(contract.finishVendorJob, { token, ...leaving }))"
          @leave="open = null"
        />
        <NoteForm
          v-if="open === 'note'"
          v-model="note"
          :busy="busy"
          :problem="problem"
          @add="addNote((text) => call(contract.addVendorNote, { token, text }))"
          @leave="open = null"
        />
        <BillForm
          v-if="open === 'bill'"
          :currency="it.currency"
          :busy="busy"
          :problem="problem"
          @send="(bill) => act(() => call(contract.enterBill, { token, ...bill }))"
          @leave="open = null"
        />
        <section v-if="it.bill" class="card" aria-label="Your bill">
          <h2>Your bill {{ it.bill.number }}</h2>
          <p v-for="(line, index) in it.bill.lines" :key="index" class="billed">
            <span>{{ line.description }}, {{ Number(line.quantity) }} × {{ formatMinor(line.unitPriceMinor) }}</span
            ><span class="mono">{{ formatMinor(line.amountMinor) }}</span>
          </p>
          <p class="billed">
            <strong>Before tax, {{ it.currency }}</strong
            ><strong class="mono">{{ formatMinor(it.bill.netMinor) }}</strong>
          </p>
        </section>
        <JobFacts :job="it" />
        <SharedDocuments :read="() => call(listPassDocuments, { token })" :url-of="(fileId) => address(readPassDocument, { token, fileId })" />
        <section v-if="it.notes.length || it.photos.length" class="card" aria-label="Notes">
          <h2>What you added</h2>
          <p v-for="(one, index) in it.notes" :key="index" class="text">
            <span class="label">{{ shortTime(one.at) }}</span> {{ one.text }}
          </p>
          <p v-if="it.photos.length">{{ it.photos.length }} {{ it.photos.length === 1 ? 'photo' : 'photos' }}</p>
        </section>
        <p class="label">
          This link works until {{ longTime(it.expiresAt) }}. Questions: <a :href="`tel:${it.deskPhone.replace(/ /g, '')}`">{{ it.deskPhone }}</a>
        </p>
      </template>
      <div v-else class="bones wait" />
    </main>
    <div v-if="it && !declined && (!over || mayBill)" class="bar">
      <div>
        <FileEntry v-if="!over" id="photo" label-hidden label="Photo" press="Photo" accept="image/*" :disabled="busy" @choose="photo" />
        <NButton v-if="!over" @click="open = 'note'">Note</NButton>
        <NButton v-if="mayBill" :type="over ? 'primary' : 'default'" @click="open = 'bill'">Enter the bill</NButton>
        <NButton v-if="!over" type="primary" :disabled="it.visitState !== 'on_site'" @click="open = 'finish'">Finish</NButton>
      </div>
    </div>
  </PhonePage>
</template>

<style scoped>
.billed {
  display: flex;
  justify-content: space-between;
  gap: 12px;
}
</style>
