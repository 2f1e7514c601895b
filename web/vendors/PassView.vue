<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, defineAsyncComponent, ref } from 'vue'
import { RouterLink, useRoute } from 'vue-router'
import { listPassDocuments, readPassDocument } from '#contract/documents'
import type { FinishJob } from '#contract/field'
import * as contract from '#contract/vendors'
import type { PassSheet } from '#contract/vendors'
import { PHOTO_STAGE_NAMES } from '#core/field'
import { formatMinor } from '#core/kit'
import { SharedDocuments } from '#web/documents'
import { JobDowntimes } from '#web/downtimes'
import { AloneCard, ClockCard, FinishForm, JobFacts, NoteForm, SafetyCard, usePhoneJob } from '#web/field'
import { address, call, FileEntry, freshKey, longTime, PhonePage, ProblemNote, shortTime, showNumbersOf, showTimesOf, useLoading } from '#web/kit'
import { JobMeters } from '#web/meters'
import { TalkCard } from '#web/talk'
import type { Written } from '#web/talk'
import AnswerCard from './AnswerCard.vue'
import BroughtParts from './BroughtParts.vue'
import PassFindings from './PassFindings.vue'
import type { PassFound } from './PassFindings.vue'
import PriceCard from './PriceCard.vue'
import RenewLink from './RenewLink.vue'
import WhoIsThere from './WhoIsThere.vue'

/** A vendor’s job, without an account: all that our own people do on theirs, and the bill. */
const BillForm = defineAsyncComponent(() => import('./BillForm.vue'))
const PassSteps = defineAsyncComponent(() => import('./PassSteps.vue'))
const token = String(useRoute().params.token)
const pass = useLoading(() => call(contract.readPass, { token }))
function write({ zone, currency, writing }: contract.PassSheet): void {
  showTimesOf({ zone, ...writing })
  showNumbersOf({ currency, ...writing })
}
void pass.load().then(() => pass.value.value && write(pass.value.value))
type Where = 'answer' | 'price' | 'safety' | 'findings' | 'parts' | 'talk' | 'files' | 'who'
const { it, busy, problem, problemAt, said, open, note, over, act, actAt, keepOpen, photo, addNote } = usePhoneJob<
  PassSheet,
  'note' | 'finish' | 'bill',
  Where
>(pass, (file) =>
  // What is taken before any work shows how it was found.
  call(contract.addVendorPhoto, { token, ...(pass.value.value!.stints.some(({ kind }) => kind === 'work') ? {} : { stage: 'before' as const }) }, { file }),
)
/** Nothing is left to read by this link then. */
const declined = ref(false)
const decline = (why: string) =>
  actAt('answer', async () => {
    await call(contract.declineVisit, { token, note: why })
    declined.value = true
    return it.value!
  })
const mayBill = computed(() => it.value && !it.value.bill && (it.value.orderState === 'on_job' || it.value.orderState === 'done'))
const urlOf = (fileId: number) => address(contract.readPassFile, { token, fileId })

const price = ref<InstanceType<typeof PriceCard> | null>(null)
async function namePrice(named: { netMinor: number; taxBp: number; note: string }): Promise<void> {
  if (await actAt('price', () => call(contract.namePassPrice, { token, ...named }))) price.value?.close()
}
const found = ref<InstanceType<typeof PassFindings> | null>(null)
async function find({ photos, ...finding }: PassFound): Promise<void> {
  const mark = freshKey()
  const isDone = await actAt('findings', async () => {
    let now = await call(contract.addPassFinding, { token, mark, ...finding }, { key: mark })
    for (const one of photos) now = await call(contract.addPassFindingPhoto, { token, mark }, { file: one })
    return now
  })
  if (isDone) found.value?.clear()
}
const parts = ref<InstanceType<typeof BroughtParts> | null>(null)
async function bring(part: { name: string; quantity: string; unit: string }): Promise<void> {
  if (await actAt('parts', () => call(contract.bringPart, { token, ...part }))) parts.value?.clear()
}
const who = ref<InstanceType<typeof WhoIsThere> | null>(null)
async function sayWho(there: { name: string; phone: string }): Promise<void> {
  if (await actAt('who', () => call(contract.sayWhoIsThere, { token, ...there }))) who.value?.close()
}
const talk = ref<InstanceType<typeof TalkCard> | null>(null)
async function say({ text, photos }: Written): Promise<void> {
  const mark = freshKey()
  const isDone = await actAt('talk', async () => {
    let now = await call(contract.sayByPass, { token, mark, text }, { key: mark })
    for (const one of photos) now = await call(contract.addPassSaidPhoto, { token, mark }, { file: one })
    return now
  })
  if (isDone) talk.value?.clear()
}
const addFile = ([file]: File[]) => file && actAt('files', () => call(contract.addPassFile, { token, name: file.name }, { file }))
const photoAfter = ([file]: File[]) => file && keepOpen(() => call(contract.addVendorPhoto, { token, stage: 'after' }, { file }))
/** The signature is of what is left behind: it goes first. */
const finish = ({ result, symptom, cause, fix, note: said, returnAt }: Omit<FinishJob, 'visitId'>, signature: { name: string; picture: Blob } | null) =>
  act(async () => {
    if (signature) pass.value.value = await call(contract.signPass, { token, name: signature.name }, { file: signature.picture })
    return call(contract.finishVendorJob, { token, result, symptom, cause, fix, note: said, returnAt })
  })
const readBill = (file: File) => call(contract.readBillFile, { token, name: file.name }, { file })
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
      <template v-if="pass.problem.value && !it">
        <ProblemNote :problem="pass.problem.value" @retry="pass.load" />
        <RenewLink v-if="pass.problem.value.status === 404" :token="token" />
      </template>
      <template v-else-if="it">
        <p v-if="said" class="problem" role="alert">{{ said }}</p>
        <p v-if="declined" class="card standing" role="status">You declined this job. The desk has been told.</p>
        <template v-else>
          <AnswerCard
            v-if="it.visitState === 'planned'"
            :key="it.plannedStart + it.answer"
            :job="it"
            :busy="busy"
            :problem="problemAt('answer')"
            @accept="actAt('answer', () => call(contract.acceptVisit, { token, plannedStart: it!.plannedStart }))"
            @propose="(time) => actAt('answer', () => call(contract.proposeTime, { token, plannedStart: it!.plannedStart, ...time }))"
            @decline="decline"
          />
          <JobFacts v-if="it.visitState === 'planned'" :job="it" />
          <PriceCard
            v-if="it.mayPrice || it.price"
            ref="price"
            :price="it.price"
            :may="it.mayPrice"
            :currency="it.currency"
            :busy="busy"
            :problem="problemAt('price')"
            @name="namePrice"
          />
          <SafetyCard
            v-if="it.hazards.length"
            :job="it"
            :over="over"
            :busy="busy"
            :problem="problemAt('safety')"
            @read="({ read }) => actAt('safety', () => call(contract.readPassHazards, { token, read }))"
            @hold="(permit) => actAt('safety', () => call(contract.holdPassPermit, { token, ...permit }))"
          />
          <AloneCard v-if="it.alone && !over" :alone="it.alone" :away="false" :busy="busy" @check-in="keepOpen(() => call(contract.checkInByPass, { token }))">
            <WhoIsThere ref="who" :there="it.there" :busy="busy" :problem="problemAt('who')" @say="sayWho" />
          </AloneCard>
          <ClockCard
            :running="it.running"
            :stints="it.stints"
            :over="over"
            :busy="busy"
            corrects
            :problem="problem"
            @correct="(time) => keepOpen(() => call(contract.correctVendorStint, { token, ...time }))"
            @switch="(kind) => act(() => call(contract.switchVendorStint, { token, kind }))"
            @stop="(stoppedAt) => act(() => call(contract.stopVendorClock, { token, stoppedAt }))"
          />
        </template>
        <FinishForm
          v-if="open === 'finish'"
          :outcome="it.outcome"
          :class-code="it.asset?.classCode"
          :unread="it.meters.filter(({ readHere }) => readHere === null).map(({ name }) => name)"
          :signed="it.signatures.map(({ name }) => name)"
          on-site
          :busy="busy"
          :sentence-at="(field) => problem?.at(field)"
          @finish="finish"
          @photo="photoAfter"
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
          :brought="it.brought"
          :busy="busy"
          :problem="problem"
          :read-file="readBill"
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
          <p v-if="it.bill.file" class="label">The desk has it as a file, too.</p>
        </section>
        <JobFacts v-if="it.visitState !== 'planned' || declined" :job="it" />
        <PassSteps :token="token" :steps="it.steps" :over="over" :url-of="urlOf" @changed="pass.value.value = $event" />
        <JobMeters
          v-if="it.meters.length"
          :meters="it.meters"
          :over="over"
          :busy="busy"
          :problem="problem"
          @read="(reading) => keepOpen(() => call(contract.addPassReading, { token, ...reading }))"
        />
        <JobDowntimes
          v-if="it.asset"
          :downtimes="it.downtimes"
          :asset="it.asset.tag"
          :over="over"
          :busy="busy"
          :problem="problem"
          @say="(period) => keepOpen(() => call(contract.sayPassDowntime, { token, ...period }))"
        />
        <SharedDocuments :read="() => call(listPassDocuments, { token })" :url-of="(fileId) => address(readPassDocument, { token, fileId })" />
        <PassFindings
          ref="found"
          :findings="it.findings"
          :answers="it.answers"
          :over="over"
          :busy="busy"
          :problem="problemAt('findings')"
          :url-of="urlOf"
          @find="find"
          @take-back="(mark) => actAt('findings', () => call(contract.takeBackPassFinding, { token, mark }))"
        />
        <BroughtParts
          ref="parts"
          :brought="it.brought"
          :over="over"
          :busy="busy"
          :problem="problemAt('parts')"
          @bring="bring"
          @drop="(id) => actAt('parts', () => call(contract.dropPart, { token, id }))"
        />
        <TalkCard ref="talk" :talk="it.talk" about="pass" :busy="busy" :problem="problemAt('talk')" :url-of="urlOf" @say="say" />
        <section class="card" aria-label="What you added">
          <h2>What you added</h2>
          <p v-for="(one, index) in it.notes" :key="index" class="text">
            <span class="label">{{ shortTime(one.at) }}</span> {{ one.text }}
          </p>
          <div v-if="it.photos.length" class="thumbs">
            <figure v-for="(one, index) in it.photos" :key="one.id">
              <a :href="urlOf(one.id)" target="_blank"><img :src="urlOf(one.id)" :alt="`Your photo ${index + 1}`" /></a>
              <figcaption v-if="one.stage" class="label">{{ PHOTO_STAGE_NAMES[one.stage] }}</figcaption>
            </figure>
          </div>
          <p v-for="one in it.signatures" :key="one.id" class="label">Signed by {{ one.name }}, {{ shortTime(one.at) }}</p>
          <p v-for="one in it.files" :key="one.id">
            <a :href="urlOf(one.id)">{{ one.name }}</a>
          </p>
          <p v-if="!it.notes.length && !it.photos.length && !it.files.length" class="label">Nothing yet.</p>
          <FileEntry
            v-if="!over"
            id="pass-file"
            label-hidden
            label="A paper: test report, delivery note"
            press="Add a paper"
            :disabled="busy"
            @choose="addFile"
          />
          <p v-if="problemAt('files')" class="problem" role="alert">{{ problem!.reasons[0]?.sentence ?? problem!.message }}</p>
        </section>
        <section v-if="it.others.length" class="card" aria-label="Your other jobs">
          <h2>Your other jobs</h2>
          <RouterLink v-for="one in it.others" :key="one.link" class="other" :to="one.link" target="_blank"
            ><strong>{{ one.summary }}</strong
            ><br /><span class="label"
              ><span class="mono">{{ one.number }}</span
              >, {{ shortTime(one.plannedStart) }}{{ one.place ? `, ${one.place}` : '' }}</span
            ></RouterLink
          >
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
.other {
  color: var(--ink);
  text-decoration: none;
  padding-left: 10px;
  border-left: 4px solid var(--line-strong);
}
figure {
  margin: 0;
}
</style>
