<script setup lang="ts">
import { NButton } from 'naive-ui/es/button'
import { computed, ref, watch } from 'vue'
import * as contract from '#contract/orders'
import { formatMinor } from '#core/kit'
import { COST_KIND_NAMES, STINT_KIND_NAMES } from '#core/ledger'
import {
  editReason,
  completeForApproval,
  HOLD_REASON_NAMES,
  HOLD_REASONS,
  INVERSE_MOVES,
  neededReason,
  offeredMoves,
  ORDER_KIND_NAMES,
  ORDER_KINDS,
  ORDER_MOVES,
  isSettled,
  isUnapproved,
} from '#core/orders'
import type { HoldReason, OrderKind, OrderMove } from '#core/orders'
import AgreementList from './AgreementList.vue'
import GroupBox from './GroupBox.vue'
import {
  HazardFields,
  PriorityGrid,
  ConflictBox,
  MoveBar,
  PictureRow,
  TimelineList,
  AssetFills,
  useAssetChoice,
  ORDER_FIELD_NAMES,
  useSheet,
} from '#web/sheets'
import {
  call,
  CallProblem,
  offerActs,
  OthersHere,
  PriorityBar,
  ProblemNote,
  shortTime,
  spell,
  StageRing,
  TargetGauge,
  useSession,
  PickField,
  jumpTo,
  MoneyField,
  TextField,
  assetChoices,
  placeChoices,
  useVocabulary,
} from '#web/kit'
import type { Permission } from '#core/people'
import { DispatchForm, VisitList } from '#web/dispatch'
import { PostingList } from '#web/ledger'
import type { OfferedMove } from '#web/sheets'
import ShareFields from './ShareFields.vue'

const props = defineProps<{ id: number }>()
const emit = defineEmits<{ about: [{ placeId?: number; assetId?: number; orderId?: number }] }>()
const session = useSession()
const words = useVocabulary()
const { sheet, save, saveFrom, sentenceAt, conflict, settle, said, follow } = useSheet(props.id, contract.readOrder, contract.editOrder)
const dispatching = ref(false)
const busy = ref(false)
void words.ensure()
void sheet.load()
follow(
  (change, now) =>
    change.orderId === props.id ||
    now.requests.some((one) => one.id === change.requestId) ||
    now.members.some((one) => one.id === change.orderId) ||
    now.lead?.id === change.orderId,
)

const it = computed(() => sheet.value.value)
watch(it, (now) => now && emit('about', { placeId: now.place?.id, assetId: now.asset?.id, orderId: now.id }))
const over = computed(() => !!it.value && isSettled(it.value.state))
const mayEdit = computed(() => session.can('orders.edit') && !over.value && !it.value?.discarded)
/** What stays as it is where the order stands, or for everybody who does not edit orders. */
const stays = (field: string) => !mayEdit.value || !it.value || editReason(it.value.state, field) !== null
const mayDispatch = computed(() => session.can('orders.dispatch') && ['ready', 'dispatched'].includes(it.value?.state ?? ''))
const missing = computed(() => (it.value?.state === 'draft' ? completeForApproval(it.value.facts) : []))
const readiness = computed(() => (it.value?.state === 'done' ? ORDER_MOVES.check.needs.flatMap((need) => need(it.value!.facts)) : []))

const CALLS: Partial<Record<OrderMove, typeof contract.submitOrder>> = {
  submit: contract.submitOrder,
  approve: contract.approveOrder,
  sendBack: contract.sendBackOrder,
  recall: contract.recallOrder,
  resume: contract.resumeOrder,
  reopen: contract.reopenOrder,
  check: contract.checkOrder,
  close: contract.closeOrder,
  cancel: contract.cancelOrder,
  discard: contract.discardOrder,
  post: contract.postOrder,
  reverse: contract.reverseOrder,
}
const ONWARD: OrderMove[] = ['submit', 'approve', 'check', 'post', 'close', 'resume']
const SAID: Partial<Record<OrderMove, string>> = {
  submit: 'waits for approval',
  approve: 'is approved',
  sendBack: 'is sent back',
  recall: 'is back at the Desk',
  hold: 'is on hold',
  resume: 'goes on',
  reopen: 'is open again',
  check: 'is checked; the reporter is told',
  close: 'is closed',
  cancel: 'is called off',
  discard: 'is discarded',
  post: 'is posted and closed',
  reverse: 'is reversed; it can be posted again',
}

const moves = computed<OfferedMove[]>(() => {
  if (!it.value) return []
  return offeredMoves(it.value.facts)
    .filter(({ move, rule }) => (CALLS[move] || move === 'hold') && session.can(rule.may as Permission))
    .map(({ move, rule, reasons }) => ({
      move,
      label: rule.label,
      key: rule.key,
      reasons,
      reason: neededReason(it.value!.facts, move).needed ? 'required' : rule.reason,
      answers: neededReason(it.value!.facts, move).answers,
      reasonLabel: rule.reasonLabel,
      onward: ONWARD.includes(move),
      ...(move === 'hold' ? { choices: { name: 'What for', options: HOLD_REASONS.map((one) => ({ value: one, label: HOLD_REASON_NAMES[one] })) } } : {}),
    }))
})
const mayArchive = computed(() => over.value && !it.value?.archived && session.can('orders.edit'))
offerActs(() => (mayArchive.value ? [{ label: 'Archive: take it out of the daily view', key: 'i', run: archive }] : []))
offerActs(() => (mayDispatch.value ? [{ label: 'Dispatch: choose who and when', key: 'd', run: openDispatch }] : []))

function openDispatch(): void {
  dispatching.value = true
  setTimeout(() => jumpTo('dispatch'))
}

async function go(name: string, { reason, choice }: { reason?: string; choice?: string }): Promise<void> {
  const move = name as OrderMove
  const { id, version, number } = it.value!
  busy.value = true
  try {
    const done =
      move === 'hold'
        ? await call(contract.holdOrder, { id, version, holdReason: choice as HoldReason, reason: reason ?? '' })
        : await call(CALLS[move]!, { id, version, reason })
    said.say(`${number} ${SAID[move]}.`, inverseOf(move, id, done.version))
  } catch (error) {
    failed(error)
  } finally {
    busy.value = false
    await sheet.load()
  }
}

function failed(error: unknown): void {
  if (!(error instanceof CallProblem)) throw error
  said.say(
    error.problem.status === 409
      ? 'Somebody else changed it meanwhile; here is what it says now. Look again, then press once more.'
      : (error.reasons[0]?.sentence ?? error.message),
    undefined,
    true,
  )
}

/** Undo is the inverse move, made with the version the act left: if anybody acted since, it is refused. */
function inverseOf(move: OrderMove, id: number, version: number): (() => Promise<unknown>) | undefined {
  if (move === 'discard') return () => call(contract.restoreOrder, { id, version }).then(sheet.load)
  const inverse = INVERSE_MOVES[move]
  return inverse ? () => call(CALLS[inverse]!, { id, version, reason: 'Taken back at once.' }).then(sheet.load) : undefined
}

async function restore(): Promise<void> {
  await call(contract.restoreOrder, { id: it.value!.id, version: it.value!.version }).catch(failed)
  await sheet.load()
}

async function archive(): Promise<void> {
  try {
    const { id, version } = await call(contract.archiveOrder, { id: it.value!.id, version: it.value!.version })
    said.say(`${it.value!.number} is archived; searching finds it.`, () => call(contract.restoreOrder, { id, version }).then(sheet.load))
  } catch (error) {
    failed(error)
  }
  await sheet.load()
}

function dispatched(version: number): void {
  dispatching.value = false
  said.say(`${it.value!.number} is dispatched; everybody sent has been told.`, () =>
    call(contract.recallOrder, { id: props.id, version, reason: 'Taken back at once.' }).then(sheet.load),
  )
  void sheet.load()
}

function showValue(field: string, value: unknown): string {
  const list = {
    tradeId: words.choices((all) => all.trades),
    teamId: words.choices((all) => all.teams),
    leadId: words.choices((all) => all.accounts),
    supervisorId: words.choices((all) => all.accounts),
    vendorId: words.choices((all) => all.vendors),
  }[field]
  if (field === 'estimateMinor' && value !== null) return formatMinor(Number(value))
  return list?.find((one) => one.value === value)?.label ?? (value === null ? 'nothing' : String(value))
}
const choice = useAssetChoice(
  () => {
    const { place, shares, vendorId, contactName, contactPhone } = it.value!
    return {
      placeId: { value: place?.id ?? null, words: place ? `${place.code} ${place.name}` : '' },
      // Several payers were agreed on with care: an asset does not touch them.
      ...(shares.length > 1 ? {} : { payerId: { value: shares[0]?.payerId ?? null, words: shares[0] ? `${shares[0].payerCode} ${shares[0].payerName}` : '' } }),
      vendorId: { value: vendorId, words: showValue('vendorId', vendorId) },
      contact: { value: contactName, words: [contactName, contactPhone].filter(Boolean).join(', ') },
    }
  },
  (assetId, taken, says) =>
    save({
      assetId,
      ...(taken.includes('placeId') ? { placeId: says!.place.id } : {}),
      ...(taken.includes('payerId') ? { shares: [{ payerId: says!.payer!.id, shareBp: 10_000 }] } : {}),
      ...(taken.includes('vendorId') ? { vendorId: says!.vendor!.id } : {}),
      ...(taken.includes('contact') ? { contactName: says!.contact!.name, contactPhone: says!.contact!.phone } : {}),
    }),
)
const { asking } = choice
const VERDICTS: Record<string, string> = { approved: 'approved', sent_back: 'sent it back', withdrawn: 'called it off' }
const index = [
  ['what', 'What'],
  ['who-pays', 'Plan and payer'],
  ['approval', 'Approval'],
  ['group', 'Group'],
  ['visits', 'Visits'],
  ['work', 'Work'],
  ['cost', 'Cost'],
  ['charges', 'Charges'],
  ['timeline', 'Timeline'],
] as const
</script>

<template>
  <ProblemNote v-if="sheet.problem.value && !it" :problem="sheet.problem.value" @retry="sheet.load" />
  <div v-else-if="!it" class="loading" aria-label="Loading"><span class="bones" /><span class="bones" /><span class="bones tall" /></div>
  <article v-else class="order">
    <header class="head">
      <p class="line">
        <span class="mono">{{ it.number }}</span><StageRing :state="it.state" :held-from="it.facts.heldFrom" /><PriorityBar
          :priority="it.priority"
        /><TargetGauge :target="it.target" wide /><span v-if="it.holdReason" class="soft">{{ HOLD_REASON_NAMES[it.holdReason] }}</span
        ><span class="soft">{{ ORDER_KIND_NAMES[it.kind] }}</span>
      </p>
      <h1>{{ it.summary }}</h1>
      <OthersHere :id="it.id" type="order" />
      <MoveBar :moves="moves" :busy="busy" @go="go" @jump="jumpTo"
        ><NButton v-if="mayDispatch && !dispatching" :type="it.state === 'ready' ? 'primary' : 'default'" @click="openDispatch"> Dispatch <kbd>D</kbd></NButton
        ><NButton v-if="mayArchive" @click="archive">Archive <kbd>I</kbd></NButton></MoveBar
      >
      <nav class="index" aria-label="On this Sheet">
        <a v-for="[anchor, name] in index" :key="anchor" :href="`#s-${anchor}`" @click.prevent="jumpTo(anchor)">{{ name }}</a>
      </nav>
    </header>
    <p v-if="it.discarded" class="outcome">This draft was discarded. <NButton @click="restore">Bring it back</NButton></p>
    <p v-if="it.archived" class="outcome">Archived: out of the daily view, found by searching. <NButton @click="restore">Bring it back</NButton></p>
    <section v-if="missing.length" aria-label="Missing before it can be submitted">
      <h2>Missing before it can be submitted</h2>
      <ul class="missing">
        <li v-for="reason in missing" :key="reason.code">
          <NButton text type="primary" class="link" @click="jumpTo(reason.field!)">{{ reason.sentence }}</NButton>
        </li>
      </ul>
    </section>
    <section v-if="readiness.length" aria-label="Missing before it can be checked">
      <h2>Missing before it can be checked</h2>
      <ul class="missing">
        <li v-for="reason in readiness" :key="reason.code">
          <NButton text type="primary" class="link" @click="jumpTo(reason.field!)">{{ reason.sentence }}</NButton>
        </li>
      </ul>
    </section>

    <section id="s-what" aria-label="What">
      <h2>What</h2>
      <p v-for="request in it.requests" :key="request.id">
        Answers
        <RouterLink :to="`/desk/triage/request/${request.id}`"
          ><span class="mono">{{ request.number }}</span> {{ request.summary }}</RouterLink
        ><template v-if="request.reporterName"> from {{ request.reporterName }}</template>
      </p>
      <template v-if="mayEdit">
        <TextField name="summary" label="Summary" :value="it.summary" :problem="sentenceAt('summary')" @save="(now, base) => saveFrom('summary', now, base)" />
        <TextField
          name="description"
          label="Description of the work"
          long
          :value="it.description"
          :problem="sentenceAt('description')"
          @save="(now, base) => saveFrom('description', now, base)"
        />
      </template>
      <p v-else class="text">{{ it.description }}</p>
      <div class="grid">
        <PickField
          id="f-placeId"
          label="Place"
          :value="it.place?.id ?? null"
          :current="it.place && { value: it.place.id, label: `${it.place.code} ${it.place.name}` }"
          :find="placeChoices"
          :disabled="stays('placeId')"
          @pick="save({ placeId: $event as number | null })"
        />
        <PickField
          id="f-assetId"
          label="Asset"
          :value="it.asset?.id ?? null"
          :current="it.asset && { value: it.asset.id, label: `${it.asset.tag} ${it.asset.name}` }"
          :find="(q) => assetChoices(q, it!.place?.id ?? null)"
          :disabled="stays('assetId')"
          clearable
          @pick="choice.pick($event as number | null)"
        />
        <PriorityGrid class="whole" :matrix="it.decides.matrix" :consequence="it.consequence" :urgency="it.urgency" :disabled="!mayEdit" @choose="save" />
        <HazardFields
          :table="it.decides.hazards"
          :severity="it.hazardSeverity"
          :likelihood="it.hazardLikelihood"
          :disabled="!mayEdit"
          :problem="sentenceAt('hazardSeverity')"
          @save="save($event)"
        />
      </div>
      <p class="soft">
        {{ it.prioritySentence }} Target {{ shortTime(it.target.completionDueAt)
        }}<template v-if="it.gauge.remainingMinutes > 0 && !it.target.finishedAt"
          >, {{ spell(it.gauge.remainingMinutes) }} of {{ it.target.clock === 'working' ? 'working time' : 'time' }} left</template
        >.
      </p>
      <PictureRow v-if="it.attachments.length" :pictures="it.attachments" />
    </section>

    <section id="s-who-pays" aria-label="Plan and payer">
      <h2>Plan and payer</h2>
      <div class="grid">
        <PickField
          id="f-kind"
          label="Kind of work"
          :value="it.kind"
          :choices="ORDER_KINDS.map((one) => ({ value: one, label: ORDER_KIND_NAMES[one] }))"
          :disabled="stays('kind')"
          @pick="save({ kind: $event as OrderKind })"
        />
        <PickField
          id="f-tradeId"
          label="Trade"
          :value="it.tradeId"
          :choices="words.choices((all) => all.trades)"
          :disabled="!mayEdit"
          @pick="save({ tradeId: $event as number })"
        />
        <PickField
          id="f-teamId"
          label="Team"
          :value="it.teamId"
          :choices="words.choices((all) => all.teams)"
          :disabled="!mayEdit"
          @pick="save({ teamId: $event as number })"
        />
        <PickField
          id="f-leadId"
          label="Who leads it"
          :value="it.leadId"
          :choices="words.choices((all) => all.accounts)"
          :disabled="!mayEdit"
          @pick="save({ leadId: $event as number })"
        />
        <PickField
          id="f-supervisorId"
          label="Who supervises it"
          :value="it.supervisorId"
          :choices="words.choices((all) => all.accounts.filter((one) => one.roles.includes('approver')))"
          :disabled="stays('supervisorId')"
          @pick="save({ supervisorId: $event as number })"
        />
        <PickField
          id="f-vendorId"
          label="Vendor, if one is sent for"
          :value="it.vendorId"
          :choices="words.choices((all) => all.vendors)"
          :disabled="!mayEdit"
          clearable
          @pick="save({ vendorId: $event as number | null })"
        />
        <MoneyField
          name="estimateMinor"
          :label="`Estimate (${it.site.currency})`"
          :value="it.estimateMinor"
          :disabled="stays('estimateMinor')"
          :problem="sentenceAt('estimateMinor')"
          @save="(now, base) => saveFrom('estimateMinor', now, base)"
        />
      </div>
      <ShareFields
        :shares="it.shares"
        :choices="words.choices((all) => all.payers)"
        :disabled="stays('shares')"
        :problem="sentenceAt('shares')"
        @save="save({ shares: $event })"
      />
      <div class="grid">
        <TextField
          name="contactName"
          label="Contact on site"
          :value="it.contactName"
          :disabled="!mayEdit"
          :max="120"
          @save="(now, base) => saveFrom('contactName', now, base)"
        />
        <TextField
          name="contactPhone"
          label="Phone"
          :value="it.contactPhone"
          :disabled="!mayEdit"
          :max="40"
          @save="(now, base) => saveFrom('contactPhone', now, base)"
        />
      </div>
      <TextField
        name="access"
        label="Getting in"
        :value="it.access"
        :disabled="!mayEdit"
        :max="2000"
        :hint="it.place?.access ?? undefined"
        @save="(now, base) => saveFrom('access', now, base)"
      />
      <TextField
        name="outsideReference"
        label="Reference in another system"
        :value="it.outsideReference"
        :disabled="!mayEdit"
        :max="80"
        @save="(now, base) => saveFrom('outsideReference', now, base)"
      />
      <TextField
        name="noteForWorker"
        label="Note for whoever does it"
        :value="it.noteForWorker"
        :disabled="!mayEdit"
        :max="2000"
        @save="(now, base) => saveFrom('noteForWorker', now, base)"
      />
      <TextField
        name="noteForPayer"
        label="Note for the payer, on the statement"
        :value="it.noteForPayer"
        :disabled="!mayEdit"
        :max="2000"
        @save="(now, base) => saveFrom('noteForPayer', now, base)"
      />
    </section>

    <section id="s-approval" aria-label="Approval">
      <h2>Approval</h2>
      <AgreementList :sheet="it" />
      <p v-for="one in it.approvals" :key="one.id">
        {{ one.askedBy }} asked for {{ formatMinor(one.amountMinor) }} at {{ shortTime(one.askedAt) }}.
        <template v-if="one.decidedAt"
          ><strong>{{ one.decidedBy }}</strong
          ><template v-if="one.actingFor">, acting for {{ one.actingFor }},</template> {{ VERDICTS[one.verdict ?? ''] }} at {{ shortTime(one.decidedAt)
          }}<template v-if="one.note">: “{{ one.note }}”</template>.</template
        >
        <template v-else>No decision yet.</template>
      </p>
      <p v-if="!it.approvals.length" class="soft">Nobody has been asked yet.</p>
    </section>

    <section id="s-group" data-field="members" aria-label="Group">
      <h2>Group</h2>
      <GroupBox :sheet="it" :may-edit="mayEdit" @changed="sheet.load" />
    </section>

    <section id="s-visits" data-field="visits" aria-label="Visits">
      <h2>Visits</h2>
      <VisitList :visits="it.visits" :may-revoke="session.can('orders.dispatch')" @revoked="sheet.load" />
      <p v-if="!it.visits.length" class="soft">Nobody has been sent yet{{ isUnapproved(it.state) ? '; the order has to be approved first' : '' }}.</p>
      <DispatchForm
        v-if="dispatching && mayDispatch"
        :order-id="it.id"
        :version="it.version"
        :vendor-id="it.vendorId"
        @leave="dispatching = false"
        @done="dispatched"
      />
    </section>

    <section id="s-work" data-field="stints" aria-label="Work">
      <h2>Work</h2>
      <div v-if="it.stints.length" class="scroll">
        <table class="plain-table">
          <thead>
            <tr>
              <th>Who</th>
              <th>Kind</th>
              <th>From</th>
              <th>To</th>
              <th>Minutes</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="stint in it.stints" :key="stint.id">
              <td>{{ stint.who }}</td>
              <td>{{ STINT_KIND_NAMES[stint.kind] }}</td>
              <td class="mono">{{ shortTime(stint.startAt) }}</td>
              <td class="mono">{{ stint.endAt ? shortTime(stint.endAt) : 'running' }}</td>
              <td class="amount">{{ stint.minutes ?? '' }}</td>
            </tr>
          </tbody>
        </table>
      </div>
      <p v-else class="soft">No time has been logged.</p>
      <div class="grid">
        <TextField name="symptom" label="Symptom" :value="it.symptom" :disabled="!mayEdit" :max="80" @save="(now, base) => saveFrom('symptom', now, base)" />
        <TextField name="cause" label="Cause" :value="it.cause" :disabled="!mayEdit" :max="80" @save="(now, base) => saveFrom('cause', now, base)" />
        <TextField name="fix" label="Fix" :value="it.fix" :disabled="!mayEdit" :max="80" @save="(now, base) => saveFrom('fix', now, base)" />
      </div>
      <p v-if="it.outcomeNote" class="text">{{ it.outcomeNote }}</p>
    </section>

    <section id="s-cost" data-field="bills" aria-label="Cost">
      <h2>Cost</h2>
      <p>
        Cost so far <strong class="mono violet">{{ formatMinor(it.costMinor) }}</strong> beside an estimate of
        <span class="mono">{{ it.estimateMinor === null ? 'nothing' : formatMinor(it.estimateMinor) }}</span> {{ it.site.currency
        }}<template v-if="it.estimateMinor && it.costMinor > it.estimateMinor"
          >, <span class="wrong">{{ formatMinor(it.costMinor - it.estimateMinor) }} over</span></template
        >.
      </p>
      <div v-if="it.costs.length" class="scroll">
        <table class="plain-table">
          <thead>
            <tr>
              <th>Kind</th>
              <th>What</th>
              <th class="amount">Quantity</th>
              <th class="amount">Each</th>
              <th class="amount">Cost</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="line in it.costs" :key="line.kind + line.sourceId">
              <td>{{ COST_KIND_NAMES[line.kind] }}</td>
              <td>{{ line.description }}</td>
              <td class="amount">{{ line.quantity }} {{ line.unit }}</td>
              <td class="amount">{{ formatMinor(line.unitCost) }}</td>
              <td class="amount">{{ formatMinor(line.cost) }}</td>
            </tr>
          </tbody>
        </table>
      </div>
      <p v-else class="soft">No cost yet: hours, parts and bills appear here by themselves.</p>
    </section>

    <section id="s-charges" aria-label="Charges">
      <h2>Charges</h2>
      <PostingList :postings="it.postings" :currency="it.site.currency" :linked="session.can('ledger.read')" />
    </section>

    <section id="s-timeline" aria-label="Timeline">
      <h2>Timeline</h2>
      <TimelineList :entries="it.timeline" />
    </section>
    <AssetFills v-if="asking" :asset="asking.says.label" :differences="asking.differences" @choose="choice.choose" @close="choice.leave" />
    <ConflictBox v-if="conflict" :conflict="conflict" :names="ORDER_FIELD_NAMES" :show="showValue" @settle="settle" />
  </article>
</template>

<style scoped src="../sheets/sheet.css"></style>
