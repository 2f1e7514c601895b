<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, nextTick, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import {
  acceptRequest,
  askReporter,
  declineRequest,
  joinRequest,
  makeAnotherOrder,
  readRequest,
  takeUpRequest,
  triageRequest,
  undoOutcome,
} from '#contract/requests'
import { CHANNEL_NAMES, PRIORITIES, PRIORITY_NAMES, REQUEST_MOVES, REQUEST_STATE_NAMES, requestMoveReasons } from '#core/requests'
import type { Channel, Priority, RequestMove } from '#core/requests'
import { counted, formatMinor } from '#core/kit'
import {
  TextEntry,
  call,
  CallProblem,
  longTime,
  offerActs,
  OthersHere,
  PriorityBar,
  ProblemNote,
  shortTime,
  spell,
  TargetGauge,
  useDraft,
  useSession,
  PickField,
  jumpTo,
  TextField,
  assetChoices,
  placeChoices,
  useVocabulary,
} from '#web/kit'
import { isUndecided } from '#core/requests'
import {
  HazardFields,
  PriorityGrid,
  ConflictBox,
  findOpenOrders,
  findOpenRequests,
  MoveBar,
  PictureRow,
  TimelineList,
  AssetFills,
  useAssetChoice,
  useSheet,
} from '#web/sheets'
import type { OfferedMove } from '#web/sheets'
import ConversationBox from './ConversationBox.vue'
import OverrideForm from './OverrideForm.vue'
import SuggestionBox from './SuggestionBox.vue'
import WholeMail from './WholeMail.vue'

const props = defineProps<{ id: number }>()
const emit = defineEmits<{ about: [{ placeId?: number; assetId?: number; requestId?: number }]; show: ['request' | 'order', number]; next: [] }>()
const router = useRouter()
const session = useSession()
const words = useVocabulary()
const { sheet, save, saveFrom, sentenceAt, conflict, settle, said, follow } = useSheet(props.id, readRequest, triageRequest)
const overriding = ref(false)
/** What is being chosen to go with a move: the request to join, or the order to accept into. */
const choosing = ref<'request' | 'order' | null>(null)
void words.ensure()
void sheet.load()
follow((change, now) => change.requestId === props.id || now.orders.some((one) => one.id === change.orderId) || now.joinedTo?.id === change.requestId)

const it = computed(() => sheet.value.value)
watch(it, (now) => now && emit('about', { placeId: now.place?.id, assetId: now.asset?.id, requestId: now.id }))
const undecided = computed(() => !!it.value && isUndecided(it.value.state))
const mayTriage = computed(() => session.can('requests.triage') && undecided.value)
const corrected = computed(() => it.value && (it.value.summary !== it.value.writtenSummary || it.value.description !== it.value.writtenDescription))

const moves = computed<OfferedMove[]>(() => {
  if (!it.value || !mayTriage.value) return []
  return (['accept', 'ask', 'decline', 'join'] as RequestMove[])
    .filter((move) => REQUEST_MOVES[move].from.includes(it.value!.state))
    .map((move) => ({
      move,
      label: REQUEST_MOVES[move].label,
      key: REQUEST_MOVES[move].key,
      reasons: requestMoveReasons(it.value!.facts, move),
      reason: REQUEST_MOVES[move].reason,
      reasonLabel: REQUEST_MOVES[move].reasonLabel,
      onward: move === 'accept',
    }))
})

async function go(move: string, { reason }: { reason?: string }): Promise<void> {
  const { id, version, number } = it.value!
  try {
    if (move === 'accept') {
      const made = await call(acceptRequest, { id, version })
      said.say(`${number} is accepted as ${made.orderNumber}.`, undo(id, true))
      await router.push(`/desk/planning/order/${made.orderId}`)
      return
    }
    if (move === 'ask') await call(askReporter, { id, version, reason: reason! })
    if (move === 'decline') await call(declineRequest, { id, version, reason: reason! })
    if (move === 'join') {
      choose('request')
      return
    }
    said.say(move === 'ask' ? 'The question is on its way to the reporter.' : `${number} is declined; the reporter is told why.`, undo(id))
    await sheet.load()
  } catch (error) {
    await failed(error)
  }
}

/** Takes the outcome back, with the version it stands at now; whoever acted since is named in the refusal. */
function undo(id: number, goBack = false): () => Promise<unknown> {
  return async () => {
    const { version } = await call(readRequest, { id })
    await call(undoOutcome, { id, version })
    if (goBack) await router.push(`/desk/triage/request/${id}`)
    else await sheet.load()
  }
}
async function takeBack(): Promise<void> {
  const { id, number } = it.value!
  try {
    await undo(id)()
    said.say(`${number} is undecided again.`)
  } catch (error) {
    await failed(error)
  }
}
const OUTCOME_WORDS: Record<string, string> = {
  accept: 'You accepted it',
  another: 'You made another order of it',
  ask: 'You asked the reporter',
  decline: 'You declined it',
  join: 'You joined it',
}
const mayTakeBack = computed(() => session.can('requests.triage') && it.value?.outcome && !it.value.outcome.reasons.length)
const whyNotBack = computed(() => it.value?.outcome?.reasons.find((reason) => reason.code !== 'not_yours')?.sentence)

/** One request, several jobs: the next order starts with the same, under a line of its own. */
const another = ref<string | null>(null)
const anotherDraft = useDraft(() => `another-${props.id}`)
watch(another, (now) => now !== null && (anotherDraft.value = now))
const mayMakeAnother = computed(() => it.value?.state === 'accepted' && session.can('requests.triage'))
function askForAnother(): void {
  another.value = anotherDraft.value || it.value!.summary
  void nextTick(() => document.getElementById('another-summary')?.focus())
}
async function makeAnother(): Promise<void> {
  const { id, version, number } = it.value!
  try {
    const made = await call(makeAnotherOrder, { id, version, summary: another.value!.trim() })
    another.value = null
    anotherDraft.value = ''
    said.say(`${made.orderNumber} is made of ${number} as well.`, undo(id))
    await sheet.load()
  } catch (error) {
    await failed(error)
  }
}

const choice = useAssetChoice(
  () => ({
    placeId: { value: it.value!.place?.id ?? null, words: it.value!.place ? `${it.value!.place.code} ${it.value!.place.name}` : '' },
    payerId: { value: it.value!.payerId, words: showValue('payerId', it.value!.payerId) },
  }),
  (assetId, taken, says) =>
    save({
      assetId,
      ...(taken.includes('placeId') ? { placeId: says!.place.id } : {}),
      ...(taken.includes('payerId') ? { payerId: says!.payer!.id } : {}),
    }),
)
const { asking } = choice

/** The first thing without which it cannot be accepted. */
const missingField = computed(() => {
  return mayTriage.value ? requestMoveReasons(it.value!.facts, 'accept')[0]?.field : undefined
})
/** Decided field by field: the keyboard goes on to what is missing, and back to the Sheet when nothing is. */
async function decide(fields: Parameters<typeof save>[0]): Promise<void> {
  if (!(await save(fields))) return
  await nextTick()
  if (missingField.value) jumpTo(missingField.value)
  else document.querySelector<HTMLElement>('#sheet, #list-sheet')?.focus()
}
/** Accepts and goes on with the next in the queue: who triages ten does not want to visit ten orders. */
async function acceptAndGoOn(): Promise<void> {
  const { id, version, number, facts } = it.value!
  const reasons = requestMoveReasons(facts, 'accept')
  if (reasons.length) return said.say(reasons[0]!.sentence, undefined, true)
  try {
    const made = await call(acceptRequest, { id, version })
    said.say(`${number} is accepted as ${made.orderNumber}; it waits in Planning.`, undo(id, true))
    emit('next')
  } catch (error) {
    await failed(error)
  }
}

function choose(what: 'request' | 'order'): void {
  choosing.value = what
  void nextTick(() => document.getElementById(`into-${what}`)?.focus())
}

async function acceptInto(orderId: number): Promise<void> {
  choosing.value = null
  try {
    const into = await call(acceptRequest, { id: it.value!.id, version: it.value!.version, orderId })
    said.say(`${it.value!.number} is accepted into ${into.orderNumber}; its reporter hears how that goes.`, undo(it.value!.id))
    await sheet.load()
  } catch (error) {
    await failed(error)
  }
}

async function joinTo(toId: number): Promise<void> {
  choosing.value = null
  try {
    await call(joinRequest, { id: it.value!.id, version: it.value!.version, toId })
    said.say(`${it.value!.number} is joined; its reporter hears how the other goes.`, undo(it.value!.id))
    await sheet.load()
  } catch (error) {
    await failed(error)
  }
}

async function takeUp(): Promise<void> {
  try {
    await call(takeUpRequest, { id: it.value!.id, version: it.value!.version })
    said.say(`${it.value!.number} is in Triage.`)
    await sheet.load()
  } catch (error) {
    await failed(error)
  }
}

async function failed(error: unknown): Promise<void> {
  if (!(error instanceof CallProblem)) throw error
  said.say(
    error.problem.status === 409
      ? 'Somebody else changed it meanwhile; here is what it says now. Look again, then press once more.'
      : (error.reasons[0]?.sentence ?? error.message),
    undefined,
    true,
  )
  await sheet.load()
}

const takenUp = computed(() => it.value?.timeline.some((entry) => entry.kind !== 'request.report') ?? false)
offerActs(() =>
  mayTriage.value
    ? [
        ...(takenUp.value ? [] : [{ label: 'Take it up', key: 't', run: takeUp, changes: true }]),
        { label: 'Accept into an order that is open already', key: 'o', run: () => choose('order') },
        { label: 'Accept and go on to the next', key: 'k', run: acceptAndGoOn, changes: true },
        {
          label: 'Go to what is missing',
          key: 'e',
          run: () => (missingField.value ? jumpTo(missingField.value) : said.say('Nothing is missing; it can be accepted.')),
        },
      ]
    : [],
)
offerActs(() => [
  ...(mayTakeBack.value ? [{ label: 'Take the outcome back', key: 'y', run: takeBack, changes: true }] : []),
  ...(mayMakeAnother.value ? [{ label: 'Make another order of it', key: 'm', run: askForAnother }] : []),
])
const target = computed(() => ({
  clock: 'working',
  startAt: it.value!.receivedAt,
  responseDueAt: it.value!.triageDueAt,
  closeAt: it.value!.triageCloseAt,
  completionDueAt: it.value!.triageDueAt,
  stoppedAt: null,
  finishedAt: undecided.value
    ? null
    : (it.value!.timeline.find((entry) => ['request.accept', 'request.decline', 'request.join'].includes(entry.kind))?.at ?? null),
}))
const left = computed(() => (it.value?.budget ? it.value.budget.budgetMinor - it.value.budget.chargedMinor - it.value.budget.committedMinor : 0))
const NAMES = {
  summary: 'Summary',
  description: 'Description',
  placeId: 'Place',
  assetId: 'Asset',
  categoryId: 'Category',
  consequence: 'Who is affected',
  urgency: 'How soon',
  payerId: 'Payer',
  outsideReference: 'Reference in another system',
}
/** Where a link leads, said before it is followed. */
const hostOf = (url: string) => (URL.canParse(url) ? new URL(url).host : 'an address that cannot be read')
const showValue = (field: string, value: unknown) =>
  (field === 'categoryId' ? words.choices((all) => all.categories) : field === 'payerId' ? words.choices((all) => all.payers) : []).find(
    (one) => one.value === value,
  )?.label ?? (value === null ? 'nothing' : String(value))
</script>

<template>
  <ProblemNote v-if="sheet.problem.value && !it" :problem="sheet.problem.value" @retry="sheet.load" />
  <div v-else-if="!it" class="loading" aria-label="Loading"><span class="bones" /><span class="bones" /><span class="bones tall" /></div>
  <article v-else class="request">
    <header class="head">
      <p class="line">
        <span class="mono">{{ it.number }}</span><span>{{ REQUEST_STATE_NAMES[it.state] }}</span
        ><PriorityBar v-if="it.priority" :priority="it.priority" /><TargetGauge :target="target" wide /><span class="soft"
          >{{ CHANNEL_NAMES[it.channel as Channel] }}, {{ longTime(it.receivedAt) }}</span
        >
      </p>
      <h1>{{ it.summary }}</h1>
      <OthersHere :id="it.id" type="request" />
      <MoveBar v-if="moves.length" :moves="moves" @go="go" @jump="jumpTo"
        ><NButton v-if="!missingField" @click="acceptAndGoOn">Accept, on to the next <kbd>K</kbd></NButton
        ><NButton v-else @click="jumpTo(missingField)">What is missing <kbd>E</kbd></NButton
        ><NButton @click="choose('order')">Accept into an order <kbd>O</kbd></NButton
        ><NButton v-if="!takenUp" type="primary" @click="takeUp">Take it up <kbd>T</kbd></NButton></MoveBar
      >
      <PickField
        v-if="choosing === 'order'"
        id="into-order"
        only-typed
        label="Into which order: by number, words or place"
        :value="null"
        :find="findOpenOrders"
        @pick="acceptInto($event as number)"
      />
      <PickField
        v-if="choosing === 'request'"
        id="into-request"
        only-typed
        label="Join to which request: by number, words or place"
        :value="null"
        :find="(q) => findOpenRequests(q, it!.id)"
        @pick="joinTo($event as number)"
      />
      <p v-for="order in it.orders" :key="order.id" class="outcome">
        Became
        <RouterLink :to="`/desk/planning/order/${order.id}`"
          ><span class="mono">{{ order.number }}</span> {{ order.summary }}</RouterLink
        >
      </p>
      <p v-if="mayTakeBack" class="outcome">
        {{ OUTCOME_WORDS[it.outcome!.move] }}{{ it.outcome!.order ? `: ${it.outcome!.order}` : '' }}. You can take that back until somebody else acts on it.
        <NButton @click="takeBack">Take it back <kbd>Y</kbd></NButton>
      </p>
      <p v-else-if="it.outcome && whyNotBack" class="soft">It cannot be taken back any more: {{ whyNotBack }}</p>
      <p v-if="mayMakeAnother && another === null">
        <NButton @click="askForAnother">Make another order of it <kbd>M</kbd></NButton>
      </p>
      <form v-if="another !== null" class="another" @submit.prevent="makeAnother" @keydown.ctrl.enter.prevent="makeAnother" @keydown.esc.stop="another = null">
        <TextEntry id="another-summary" v-model="another" label="What the other order is about, in one line" :max="140" required />
        <NButton type="primary" attr-type="submit">Make the order <kbd>Ctrl Enter</kbd></NButton>
        <NButton @click="another = null">Leave it</NButton>
      </form>
      <p v-if="it.joinedTo" class="outcome">
        Joined to <RouterLink :to="`/desk/triage/request/${it.joinedTo.id}`" class="mono">{{ it.joinedTo.number }}</RouterLink>
      </p>
      <p v-if="it.repeats" class="outcome">
        Said to be not fixed: <RouterLink :to="`/desk/triage/request/${it.repeats.id}`" class="mono">{{ it.repeats.number }}</RouterLink>
      </p>
      <p v-if="it.declineReason" class="outcome">Declined: {{ it.declineReason }}</p>
      <p v-if="it.state === 'asked'" class="outcome">Waiting for the answer to: {{ it.question }}</p>
    </header>

    <section aria-label="What was reported">
      <h2>What was reported</h2>
      <template v-if="mayTriage">
        <TextField
          name="summary"
          label="Summary: the subject of every mail about this"
          :value="it.summary"
          :problem="sentenceAt('summary')"
          @save="(now, base) => saveFrom('summary', now, base)"
        />
        <TextField
          name="description"
          label="Description"
          long
          :value="it.description"
          :problem="sentenceAt('description')"
          @save="(now, base) => saveFrom('description', now, base)"
        />
      </template>
      <p v-else class="text">{{ it.description }}</p>
      <div v-if="corrected" class="written">
        <p class="label soft">What the reporter wrote</p>
        <p>
          <strong>{{ it.writtenSummary }}</strong>
        </p>
        <p class="text">{{ it.writtenDescription }}</p>
      </div>
      <div v-for="mail in it.mails" :key="mail.id" class="by-mail">
        <p v-if="mail.leftOut" class="outcome">{{ mail.leftOut }} The whole mail is here.</p>
        <WholeMail :id="mail.id" :label="`Open the whole mail of ${shortTime(mail.receivedAt)}`" />
      </div>
      <dl v-if="it.sentBy && (it.sentBy.mediaUrl || it.sentBy.lat !== undefined || it.sentBy.address)" class="answers">
        <div v-if="it.sentBy.address">
          <dt class="soft">Address given</dt>
          <dd>{{ it.sentBy.address }}</dd>
        </div>
        <div v-if="it.sentBy.lat !== undefined">
          <dt class="soft">Position of the device (WGS 84)</dt>
          <dd class="mono">{{ it.sentBy.lat.toFixed(5) }}, {{ it.sentBy.long?.toFixed(5) }}</dd>
        </div>
        <div v-if="it.sentBy.mediaUrl">
          <dt class="soft">Picture kept elsewhere</dt>
          <dd>
            <a :href="it.sentBy.mediaUrl" target="_blank" rel="noopener noreferrer nofollow">Open it at {{ hostOf(it.sentBy.mediaUrl) }}</a>
            <span class="soft"> This leaves Evrix.</span>
          </dd>
        </div>
      </dl>
      <p v-if="it.wish" class="soft">Wished for: “{{ it.wish }}”. A wish is not a priority.</p>
      <dl v-if="it.answers.length" class="answers">
        <div v-for="one in it.answers" :key="one.label">
          <dt class="soft">{{ one.label }}</dt>
          <dd>{{ one.answer }}</dd>
        </div>
      </dl>
      <PictureRow v-if="it.attachments.length" :pictures="it.attachments" />
      <p v-for="one in it.bulletins" :key="one.id" class="outcome">
        Notice here, {{ shortTime(one.startsAt) }} to {{ shortTime(one.endsAt) }}: <strong>{{ one.title }}</strong>
      </p>
    </section>

    <SuggestionBox
      v-if="undecided"
      :request-id="it.id"
      :version="it.version"
      :category-id="it.categoryId"
      :asset-id="it.asset?.id ?? null"
      :may-triage="mayTriage"
      @take="decide"
      @join="joinTo"
    />

    <section aria-label="Decide">
      <h2>Decide</h2>
      <div class="grid">
        <PickField
          id="f-placeId"
          label="Place"
          :value="it.place?.id ?? null"
          :current="it.place && { value: it.place.id, label: `${it.place.code} ${it.place.name}` }"
          :find="placeChoices"
          :disabled="!mayTriage"
          :problem="sentenceAt('placeId')"
          @pick="decide({ placeId: $event as number | null })"
        />
        <PickField
          id="f-assetId"
          label="Asset"
          :value="it.asset?.id ?? null"
          :current="it.asset && { value: it.asset.id, label: `${it.asset.tag} ${it.asset.name}` }"
          :find="(q) => assetChoices(q, it!.place?.id ?? null)"
          :disabled="!mayTriage"
          clearable
          @pick="choice.pick($event as number | null)"
        />
        <PickField
          id="f-categoryId"
          label="What it is about"
          :value="it.categoryId"
          :choices="words.choices((all) => all.categories)"
          :disabled="!mayTriage"
          @pick="decide({ categoryId: $event as number | null })"
        />
        <PickField
          id="f-payerId"
          label="Who pays"
          :value="it.payerId"
          :choices="words.choices((all) => all.payers)"
          :disabled="!mayTriage"
          @pick="decide({ payerId: $event as number | null })"
        />
        <PriorityGrid class="whole" :matrix="it.decides.matrix" :consequence="it.consequence" :urgency="it.urgency" :disabled="!mayTriage" @choose="decide" />
        <HazardFields :table="it.decides.hazards" :severity="it.hazardSeverity" :likelihood="it.hazardLikelihood" :disabled="!mayTriage" @save="save($event)" />
        <TextField
          name="outsideReference"
          label="Reference in another system"
          :value="it.outsideReference"
          :disabled="!mayTriage"
          :max="80"
          @save="(now, base) => saveFrom('outsideReference', now, base)"
        />
      </div>
      <p v-if="it.budget" class="budget" :class="{ wrong: left < 0 }">
        Budget of the payer: <span class="mono violet">{{ formatMinor(left) }}</span> left of
        <span class="mono">{{ formatMinor(it.budget.budgetMinor) }}</span>, with <span class="mono">{{ formatMinor(it.budget.committedMinor) }}</span> committed
        to approved work.
      </p>
      <div class="verdict">
        <template v-if="it.priority">
          <p><PriorityBar :priority="it.priority" /> {{ it.prioritySentence }}</p>
          <p v-if="it.promise" class="soft">
            Promised: somebody responds within {{ spell(it.promise.responseMinutes) }}, finished within {{ spell(it.promise.completionMinutes)
            }}{{ it.promise.clock === 'working' ? ' of working time' : ', day and night' }}, counted from when it was received.
          </p>
        </template>
        <p v-else class="soft">Who is affected and how soon give the priority.</p>
        <NButton v-if="mayTriage && it.priority && !overriding" text type="primary" class="link" @click="overriding = true">
          Set another priority, with a reason
        </NButton>
        <OverrideForm
          v-if="overriding"
          :choices="PRIORITIES.map((one) => ({ value: one, label: PRIORITY_NAMES[one] }))"
          @leave="overriding = false"
          @save="(priority, reason) => save({ priority: priority as Priority, priorityReason: reason }).then((ok) => (overriding = !ok))"
        />
      </div>
    </section>

    <section aria-label="Reporter">
      <h2>Reporter</h2>
      <p v-if="it.reporter.name || it.reporter.email || it.reporter.phone">
        {{ [it.reporter.name, it.reporter.phone, it.reporter.email].filter(Boolean).join(', ') }}
      </p>
      <p v-else class="soft">They left no name and no address. They follow it on their private link.</p>
      <p v-for="other in it.joinedFrom" :key="other.id">
        Also told by <RouterLink :to="`/desk/triage/request/${other.id}`" class="mono">{{ other.number }}</RouterLink>
      </p>
      <p v-if="it.followers.length" class="soft">
        {{ counted(it.followers.length, 'other') }} follow{{ it.followers.length === 1 ? 's' : '' }} it:
        {{ it.followers.map((one) => one.name ?? one.email).join(', ') }}
      </p>
    </section>

    <section id="s-conversation" aria-label="Conversation">
      <h2>Conversation</h2>
      <ConversationBox
        :request-id="it.id"
        :conversation="it.conversation"
        :may-write="session.can('requests.triage')"
        @written="sheet.value.value = { ...it, conversation: $event }"
      />
    </section>

    <section aria-label="Timeline">
      <h2>Timeline</h2>
      <TimelineList :entries="it.timeline" />
    </section>
    <AssetFills v-if="asking" :asset="asking.says.label" :differences="asking.differences" @choose="choice.choose" @close="choice.leave" />
    <ConflictBox v-if="conflict" :conflict="conflict" :names="NAMES" :show="showValue" @settle="settle" />
  </article>
</template>

<style scoped src="../sheets/sheet.css"></style>
<style scoped>
.another {
  display: grid;
  grid-template-columns: 1fr auto auto;
  gap: 8px;
  align-items: end;
}
</style>
