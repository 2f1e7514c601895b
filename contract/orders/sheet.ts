import Joi from 'joi'
import { endpoint, field } from '#contract/kit'
import type { GaugeTarget, Instant } from '#contract/kit'
import type { AttachmentRow, NamedAsset, NamedPlace, TimelineEntry } from '#contract/requests'
import type { VisitAnswer } from '#core/dispatch'
import type { CostKind, StintKind } from '#core/ledger'
import type { HoldReason, OrderFacts, OrderKind, OrderState, OwnMark, TargetStanding } from '#core/orders'
import type { Consequence, Likelihood, Priority, PriorityRules, Severity, Urgency } from '#core/requests'

export interface GaugeState {
  standing: TargetStanding
  usedShare: number
  responseShare: number
  remainingMinutes: number
  missedAt: Instant | null
}

export interface AgreedWindow {
  from: Instant
  until: Instant
  with: string | null
}

export interface VisitRow {
  id: number
  version: number
  who: string
  technicianId: number | null
  vendorId: number | null
  kind: string
  state: string
  plannedStart: Instant
  plannedEnd: Instant
  startedAt: Instant | null
  endedAt: Instant | null
  result: string | null
  /** What a vendor said to being sent, and the time they proposed. */
  answer: VisitAnswer | null
  answeredAt: Instant | null
  answerNote: string | null
  proposed: { start: Instant; end: Instant } | null
  /** A vendor has not answered for so long that the desk was told. */
  silent: boolean
  /** Parts that a vendor brought along and built in. */
  brought: { name: string; quantity: string; unit: string }[]
  pass: { id: number; expiresAt: Instant; revokedAt: Instant | null } | null
}

export interface StintRow {
  id: number
  visitId: number
  who: string
  kind: StintKind
  startAt: Instant
  endAt: Instant | null
  minutes: number | null
  perHourMinor: number | null
  costMinor: number | null
}

export interface CostRow {
  kind: CostKind
  sourceId: number
  description: string
  quantity: string
  unit: string
  unitCost: number
  cost: number
}

export interface ApprovalRow {
  id: number
  amountMinor: number
  askedAt: Instant
  askedBy: string | null
  decidedAt: Instant | null
  decidedBy: string | null
  actingFor: string | null
  verdict: string | null
  note: string | null
}

export interface ChargeRow {
  id: number
  payerId: number
  payerCode: string
  payerName: string
  shareBp: number
  netMinor: number
  taxMinor: number
  grossMinor: number
  ownCost: boolean
}

export interface PostingRow {
  id: number
  kind: 'posting' | 'reversal'
  round: number
  month: string
  at: Instant
  charges: ChargeRow[]
}

export interface OrderSheet {
  id: number
  number: string
  version: number
  site: { id: number; zone: string; currency: string }
  /** By what its site makes a priority. */
  decides: PriorityRules
  state: OrderState
  facts: OrderFacts
  kind: OrderKind
  summary: string
  description: string
  place: NamedPlace | null
  asset: NamedAsset | null
  categoryId: number | null
  tradeId: number | null
  teamId: number | null
  leadId: number | null
  supervisorId: number | null
  vendorId: number | null
  consequence: Consequence | null
  urgency: Urgency | null
  hazardSeverity: Severity | 'none' | null
  hazardLikelihood: Likelihood | null
  priority: Priority | null
  prioritySentence: string | null
  estimateMinor: number | null
  contactName: string | null
  contactPhone: string | null
  access: string | null
  /** The time agreed with whoever lets people in. */
  window: AgreedWindow | null
  noteForWorker: string | null
  noteForPayer: string | null
  outsideReference: string | null
  target: GaugeTarget
  gauge: GaugeState
  holdReason: HoldReason | null
  /** The state of the site's own it is in, under the one of ours. */
  ownState: { id: number; name: string; mark: OwnMark } | null
  symptom: string | null
  cause: string | null
  fix: string | null
  outcomeNote: string | null
  discarded: boolean
  archived: boolean
  shares: { payerId: number; payerCode: string; payerName: string; shareBp: number }[]
  /** The group it belongs to, and those it leads. */
  lead: { id: number; number: string; summary: string } | null
  members: { id: number; number: string; summary: string; state: OrderState; heldFrom: OrderState | null }[]
  requests: { id: number; number: string; summary: string; reporterName: string | null }[]
  /** The order whose fault came back, where that is why there is this one. */
  callBackOf: { id: number; number: string } | null
  /** How much was found on it, and how much found elsewhere it is to put right. */
  findings: { found: number; answers: number }
  visits: VisitRow[]
  stints: StintRow[]
  costs: CostRow[]
  costMinor: number
  postings: PostingRow[]
  attachments: AttachmentRow[]
}

/** Who agrees to an order, and out of what. */
export interface Agreement {
  /** Who has to agree, in order, and why; what was decided of it so far. */
  agreements: { position: number; who: string; why: string; decided: boolean }[]
  /** Whose limit covers this estimate, and who decides for them while they are away. */
  approvers: { name: string; limitMinor: number; awayUntil: Instant | null; deputy: string | null }[]
  /** What each payer’s budget says; nothing for payers without one. */
  budgets: { payerId: number; budgetMinor: number; chargedMinor: number; committedMinor: number }[]
  /** What was decided, the last asked for first. */
  approvals: ApprovalRow[]
}

const byId = { id: field.id().required() }

export const readOrder = endpoint<{ id: number }, OrderSheet>({
  method: 'GET',
  path: '/api/orders/:id',
  says: 'One order in full.',
  may: 'desk.read',
  input: Joi.object<{ id: number }, true>(byId),
})

export const readAgreement = endpoint<{ id: number }, Agreement>({
  method: 'GET',
  path: '/api/orders/:id/agreement',
  says: 'Who has to agree to an order and why, what was decided, and what its payers have left.',
  may: 'desk.read',
  input: Joi.object<{ id: number }, true>(byId),
})

export const readOrderTimeline = endpoint<{ id: number }, { entries: TimelineEntry[] }>({
  method: 'GET',
  path: '/api/orders/:id/timeline',
  says: 'What happened to an order and the requests it answers, newest first.',
  may: 'desk.read',
  input: Joi.object<{ id: number }, true>(byId),
})
