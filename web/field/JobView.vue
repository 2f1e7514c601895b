<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, ref } from 'vue'
import { RouterLink, useRoute } from 'vue-router'
import { listJobDocuments, readJobDocument } from '#contract/documents'
import * as contract from '#contract/field'
import type { JobSheet } from '#contract/field'
import { readAttachment } from '#contract/orders'
import { PHOTO_STAGE_NAMES, withActs } from '#core/field'
import type { FieldActs } from '#core/field'
import type { VisitResult } from '#core/dispatch'
import type { StintKind } from '#core/ledger'
import { KeptPicture, SignalLine, useCarried, useCarrying } from '#web/devices'
import { FindingForm, JobFindings } from '#web/findings'
import type { NewlyFound } from '#web/findings'
import type { Recording } from '#web/devices'
import { FileEntry, freshKey, PhonePage, address, onLiveChange, PriorityBar, ProblemNote, shortTime, useSoon } from '#web/kit'
import { SharedDocuments } from '#web/documents'
import { JobDowntimes } from '#web/downtimes'
import { JobMeters } from '#web/meters'
import { TalkCard } from '#web/talk'
import type { Written } from '#web/talk'
import { JobSteps } from '#web/methods'
import AloneCard from './AloneCard.vue'
import ClockCard from './ClockCard.vue'
import FinishForm from './FinishForm.vue'
import JobFacts from './JobFacts.vue'
import NoteForm from './NoteForm.vue'
import JobEquipment from './JobEquipment.vue'
import JobParts from './JobParts.vue'
import PartForm from './PartForm.vue'
import { refuseElsewhere, refuseUnsafeHere, runningElsewhere } from './localRules'
import SafetyCard from './SafetyCard.vue'
import { sawJob } from './seen'
import UnsentCard from './UnsentCard.vue'
import { usePhoneJob } from './usePhoneJob'

/** One job at a time, gloves on: clock, part, photo, note, finish. What is done is kept on the phone and sent when there is signal. */
const visitId = Number(useRoute().params.visitId)
const carrying = useCarrying()
/** A page that was read by programs of an earlier day lacks what has come since. */
const NOT_YET = {
  findings: [],
  answers: [],
  meters: [],
  downtimes: [],
  signatures: [],
  alone: null,
  planned: [],
  asked: [],
  equipment: [],
  talk: { rows: [], to: [] },
}
const job = useCarried(contract.readJob, { visitId }, (read, acts, who) => withActs({ ...NOT_YET, ...read }, acts, who))
void job.load().then(() => job.value.value && sawJob(job.value.value))
onLiveChange(useSoon(job.load, 200))
const record = (recording: Recording, photo?: Blob) => carrying.record<JobSheet>(recording, photo)
type Form = 'part' | 'note' | 'finding' | 'finish'
type Where = 'parts' | 'equipment' | 'talk'
const { it, busy, problem, problemAt, said, open, note, over, act, actAt, keepOpen, photo, addNote } = usePhoneJob<JobSheet, Form, Where>(job, (file) =>
  // What is taken before any work shows how it was found.
  record({ name: 'photo', visitId, input: job.value.value!.stints.some(({ kind }) => kind === 'work') ? {} : { stage: 'before' } }, file),
)
/** What the clock was to be set to, while it runs on another job. */
const wanted = ref<StintKind | null>(null)
const isElsewhere = computed(() => problem.value?.reasons.some(({ code }) => code === 'clock_elsewhere') && wanted.value !== null)
function setClock(kind: StintKind): void {
  wanted.value = kind
  void act(async () => {
    refuseUnsafeHere(it.value!, kind)
    await refuseElsewhere(visitId)
    return record({ name: 'stint', visitId, input: { kind } })
  })
}
/** Both in one press: stopped there, started here. */
const moveClock = () =>
  act(async () => {
    const other = await runningElsewhere(visitId)
    if (other) await carrying.record({ name: 'stop', visitId: other.visitId, input: {} })
    return record({ name: 'stint', visitId, input: { kind: wanted.value! } })
  })
/** What is recorded below the facts is refused there, where it was pressed. */
const recordAt = (where: Where, recording: Recording) => actAt(where, () => record(recording))
const parts = ref<InstanceType<typeof JobParts> | null>(null)
async function bringBack(input: FieldActs['partBack'], shown: Shown): Promise<void> {
  if (await recordAt('parts', { name: 'partBack', visitId, input, shown })) parts.value?.close()
}
type Shown = { code: string; name: string; unit: string }
const shownPart = ({ code, name, unit }: Shown) => ({ code, name, unit })
const here = computed(() => {
  const { asset, placeCode, placeName } = it.value!
  return asset ? `${asset.tag} ${asset.name}` : placeCode && `${placeCode} ${placeName}`
})
const foundForm = ref<InstanceType<typeof FindingForm> | null>(null)
/** A finding goes by a name of its own, so that its photos find it when both are sent later. */
async function recordFinding({ finding, where, photos }: NewlyFound): Promise<void> {
  const mark = freshKey()
  const recorded = await act(async () => {
    let now = await record({ name: 'finding', visitId, input: { mark, ...finding }, shown: { name: where ?? undefined } })
    for (const photo of photos) now = await record({ name: 'findingPhoto', visitId, input: { mark }, shown: { name: finding.text } }, photo)
    return now
  })
  if (recorded) foundForm.value?.clear()
}
const talk = ref<InstanceType<typeof TalkCard> | null>(null)
async function say({ audience, text, photos }: Written): Promise<void> {
  const mark = freshKey()
  const sent = await actAt('talk', async () => {
    let now = await record({ name: 'say', visitId, input: { mark, audience, text } })
    for (const photo of photos) now = await record({ name: 'sayPhoto', visitId, input: { mark }, shown: { name: text } }, photo)
    return now
  })
  if (sent) talk.value?.clear()
}
/** What a step showed is where the job is. */
const foundByStep = (finding: NewlyFound['finding']) => recordFinding({ finding, where: here.value, photos: [] })
const takeBack = ({ mark, text }: { mark: string; text: string }) => act(() => record({ name: 'findingBack', visitId, input: { mark }, shown: { name: text } }))
const crew = ref<{ id: number; name: string }[]>([])
void carrying.readAny(contract.carryJobs, {}).then(
  (carried) => (crew.value = carried.crew ?? []),
  () => undefined,
)
const unread = computed(() => it.value!.meters.filter(({ readHere }) => readHere === null).map(({ name }) => name))
const photoAfter = async ([file]: File[]) => {
  if (file) await keepOpen(() => record({ name: 'photo', visitId, input: { stage: 'after' } }, file))
}
/** The signature is of what is left behind: it goes first. */
const finish = (input: Omit<contract.FinishJob, 'visitId'>, signature: { name: string; picture: Blob } | null) =>
  act(async () => {
    if (signature) await record({ name: 'signature', visitId, input: { name: signature.name } }, signature.picture)
    return record({ name: 'finish', visitId, input })
  })
/** What was found stops the work: another visit is needed, unless they say otherwise. */
const firstResult = ref<VisitResult>('done')
function leaveOver(): void {
  firstResult.value = 'return'
  open.value = 'finish'
}
/** Where a photo that is not sent yet lies. */
const waitingFile = (photo: { id: number; fileId?: string }) => photo.fileId
const documents = () => carrying.readAny(listJobDocuments, { visitId })
const documentUrl = (fileId: number) => address(readJobDocument, { visitId, fileId })
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
    <SignalLine />
    <main>
      <UnsentCard :visit-id="visitId" />
      <ProblemNote v-if="job.problem.value && !it" :problem="job.problem.value" @retry="job.load" />
      <template v-else-if="it">
        <p v-if="it.priority"><PriorityBar :priority="it.priority" /></p>
        <p v-if="said" class="problem" role="alert">{{ said }}</p>
        <NButton v-if="isElsewhere && !open" type="primary" :disabled="busy" @click="moveClock">Stop it there and start here</NButton>
        <SafetyCard
          v-if="it.hazards.length"
          :job="it"
          :over="over"
          :busy="busy"
          :problem="problem"
          @read="(input) => act(() => record({ name: 'hazards', visitId, input }))"
          @hold="(input) => act(() => record({ name: 'permit', visitId, input }))"
        />
        <AloneCard
          v-if="it.alone && !over"
          :alone="it.alone"
          :away="carrying.away"
          :busy="busy"
          @check-in="keepOpen(() => record({ name: 'checkIn', visitId, input: {} }))"
        />
        <ClockCard
          :running="it.running"
          :stints="it.stints"
          :over="over"
          :busy="busy"
          corrects
          :problem="problem"
          @correct="(input) => act(() => record({ name: 'correct', visitId, input }))"
          @switch="setClock"
          @stop="(stoppedAt) => act(() => record({ name: 'stop', visitId, input: stoppedAt ? { stoppedAt } : {} }))"
        />
        <FinishForm
          v-if="open === 'finish'"
          :outcome="it.outcome"
          :first="firstResult"
          :class-code="it.asset?.classCode"
          :crew="crew"
          :unread="unread"
          :out="it.equipment.filter(({ state }) => state === 'out').map(({ name }) => name)"
          :signed="it.signatures.map(({ name }) => name)"
          on-site
          parts
          :open-members="it.openMembers"
          :busy="busy"
          :sentence-at="(field) => problem?.at(field)"
          @finish="finish"
          @photo="photoAfter"
          @leave="open = null"
        />
        <PartForm
          v-if="open === 'part'"
          :planned="it.planned"
          :busy="busy"
          :problem="problem"
          @use="(input, shown) => act(() => record({ name: 'part', visitId, input, shown: shownPart(shown) }))"
          @ask="(input, shown) => act(() => record({ name: 'partAsk', visitId, input, shown: shownPart(shown) }))"
          @leave="open = null"
        />
        <NoteForm
          v-if="open === 'note'"
          v-model="note"
          :busy="busy"
          :problem="problem"
          @add="addNote((text) => record({ name: 'note', visitId, input: { text } }))"
          @leave="open = null"
        />
        <FindingForm
          v-if="open === 'finding'"
          ref="foundForm"
          :visit-id="visitId"
          :here="here"
          :here-code="it.placeCode"
          :busy="busy"
          :problem="problem"
          @record="recordFinding"
          @leave="open = null"
        />
        <JobFacts :job="it" />
        <JobFindings v-if="it.answers.length" title="To put right" :visit-id="visitId" :findings="it.answers" :busy="busy" />
        <JobSteps
          :visit-id="visitId"
          :order-kind="it.orderKind"
          :found="it.findings.length"
          :may-stop="it.visitState === 'on_site'"
          @find="foundByStep"
          @stop="leaveOver"
        />
        <JobMeters
          v-if="it.meters.length"
          :meters="it.meters"
          :over="over"
          :busy="busy"
          :problem="problem"
          @read="(input, { name, unit }) => act(() => record({ name: 'reading', visitId, input, shown: { name, unit } }))"
        />
        <JobDowntimes
          v-if="it.asset"
          :downtimes="it.downtimes"
          :asset="it.asset.tag"
          :over="over"
          :busy="busy"
          :problem="problem"
          @say="(input) => act(() => record({ name: 'downtime', visitId, input, shown: { name: it!.asset!.tag } }))"
        />
        <JobFindings v-if="it.findings.length" title="Found here" :visit-id="visitId" :findings="it.findings" :busy="busy" @take-back="takeBack" />
        <SharedDocuments :read="documents" :url-of="documentUrl" :content-of="(fileId) => carrying.blob(documentUrl(fileId))" />
        <JobParts
          v-if="it.parts.length || it.planned.length || it.asked.length"
          ref="parts"
          :job="it"
          :busy="busy"
          :problem="problemAt('parts')"
          @back="bringBack"
        />
        <JobEquipment
          :equipment="it.equipment"
          :over="over"
          :busy="busy"
          :problem="problemAt('equipment')"
          @take="({ equipmentId, tag, name }) => recordAt('equipment', { name: 'equipmentOut', visitId, input: { equipmentId }, shown: { code: tag, name } })"
          @back="
            ({ equipmentId, tag, name }, note) =>
              recordAt('equipment', { name: 'equipmentBack', visitId, input: { equipmentId, ...(note ? { note } : {}) }, shown: { code: tag, name } })
          "
        />
        <TalkCard
          ref="talk"
          :talk="it.talk"
          :about="`job-${visitId}`"
          :busy="busy"
          :problem="problemAt('talk')"
          :url-of="(id) => address(readAttachment, { id })"
          @say="say"
        />
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
            <figure v-for="(one, index) in it.photos" :key="one.id">
              <KeptPicture :url="address(readAttachment, { id: one.id })" :file-id="waitingFile(one)" :alt="`Photo ${index + 1}`" />
              <figcaption v-if="one.stage" class="label">{{ PHOTO_STAGE_NAMES[one.stage] }}</figcaption>
            </figure>
          </div>
        </section>
        <section v-if="it.signatures.length" class="card" aria-label="Signed">
          <h2>Signed</h2>
          <figure v-for="one in it.signatures" :key="one.id">
            <KeptPicture class="signed" :url="address(readAttachment, { id: one.id })" :file-id="waitingFile(one)" :alt="`Signature of ${one.name}`" />
            <figcaption class="label">{{ one.name }}, {{ shortTime(one.at) }}</figcaption>
          </figure>
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
        <NButton @click="open = 'finding'">Finding</NButton>
        <NButton v-if="open !== 'finish'" type="primary" :disabled="it.visitState !== 'on_site'" @click="((firstResult = 'done'), (open = 'finish'))"
          >Finish</NButton
        >
      </div>
    </div>
  </PhonePage>
</template>

<style scoped>
figure {
  margin: 0;
}
.signed {
  max-height: 90px;
  border: 1px solid var(--line);
  border-radius: 6px;
}
</style>
