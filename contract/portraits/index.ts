import Joi from 'joi'
import { endpoint, field } from '#contract/kit'
import type { GaugeTarget, Instant } from '#contract/kit'
import type { TimelineEntry } from '#contract/requests'
import type { StockLevel } from '#contract/stock'
import type { OrderKind, OrderState } from '#core/orders'
import { REGISTERS } from '#core/registers'
import type { RegisterName } from '#core/registers'
import type { MovementKind } from '#core/stock'

export * from './kinds'

export interface OfRecord {
  register: RegisterName
  id: number
}
const ofRecord = Joi.object<OfRecord, true>({ register: field.oneOf(REGISTERS).required(), id: field.id().required() })

/** What a label says: a site, and a place, an asset, or an asset in its place. */
export interface LabelSays {
  site: string
  place?: string
  asset?: string
}

export const findScanned = endpoint<LabelSays, OfRecord>({
  method: 'GET',
  path: '/api/scanned',
  says: 'The record a printed label stands for, to open its Portrait.',
  may: 'desk.read',
  input: Joi.object<LabelSays, true>({
    site: Joi.string().max(16).required(),
    place: Joi.string().max(32),
    asset: Joi.string().max(32),
  }).or('place', 'asset'),
})

/** An order or a request that is not over. */
export interface OpenWork {
  type: 'order' | 'request'
  id: number
  number: string
  summary: string
  state: string
  target: GaugeTarget
}

/** An order that was finished, with what was wrong and what was done. */
export interface DoneWork {
  id: number
  number: string
  summary: string
  kind: OrderKind
  state: OrderState
  finishedAt: Instant
  symptom: string | null
  cause: string | null
  fix: string | null
  costMinor: number
}

/** Who has worked on it, and so knows it. */
export interface WhoKnows {
  who: string
  visits: number
  lastAt: Instant
}

export interface PortraitWork {
  open: OpenWork[]
  done: DoneWork[]
  /** How many were finished in all. */
  finished: number
  knows: WhoKnows[]
}

export const readPortraitWork = endpoint<OfRecord, PortraitWork>({
  method: 'GET',
  path: '/api/registers/:register/:id/work',
  says: 'Work on a record and on everything below it: what is open, the late ones first, what was done last, and who knows it.',
  may: 'desk.read',
  input: ofRecord,
})

/** What was spent on it in a year, by kind of cost, and by whether it was planned. */
export interface CostOfYear {
  year: number
  labourMinor: number
  partsMinor: number
  equipmentMinor: number
  vendorMinor: number
  orders: number
}

export const readPortraitCosts = endpoint<OfRecord, { years: CostOfYear[]; currency: string }>({
  method: 'GET',
  path: '/api/registers/:register/:id/costs',
  says: 'What the finished work on a record cost, by the year in which it was finished and the kind of cost.',
  may: 'ledger.read',
  input: ofRecord,
})

export const readPortraitTimeline = endpoint<OfRecord, { entries: TimelineEntry[] }>({
  method: 'GET',
  path: '/api/registers/:register/:id/timeline',
  says: 'What was changed of a record, by whom, newest first.',
  may: 'desk.read',
  input: ofRecord,
})

/** A preventive plan with what is due of it next. */
export interface PortraitPlan {
  id: number
  name: string
  /** RFC 5545. */
  rule: string
  /** The asset it is of, where that is not the record itself. */
  asset: string | null
  /** As "2026-11-26"; null while nothing is ahead. */
  nextOn: string | null
  late: boolean
  orderId: number | null
  orderNumber: string | null
  lastDoneOn: string | null
}

/** The newest reading of a meter, and the one before it. */
export interface PortraitMeter {
  asset: string
  name: string
  unit: string
  value: string
  at: Instant
  before: string | null
}

export const readPortraitUpkeep = endpoint<OfRecord, { plans: PortraitPlan[]; meters: PortraitMeter[] }>({
  method: 'GET',
  path: '/api/registers/:register/:id/upkeep',
  says: 'The preventive plans of a place or an asset and of what stands below, with what is due next, and the newest readings of its meters.',
  may: 'desk.read',
  input: ofRecord,
})

export interface PortraitMovement {
  id: number
  at: Instant
  kind: MovementKind
  part: string
  store: string
  /** A decimal with its sign; what was issued is negative. */
  quantity: string
  unit: string
  orderId: number | null
  orderNumber: string | null
  /** For one, in minor units. */
  unitCostMinor: number
  reason: string | null
  by: string | null
}

export const readPortraitMovements = endpoint<OfRecord, { levels: StockLevel[]; rows: PortraitMovement[]; mayMove: boolean }>({
  method: 'GET',
  path: '/api/registers/:register/:id/movements',
  says: 'How much of a part lies where, or what lies in a store, and the newest movements.',
  may: 'desk.read',
  input: ofRecord,
})

/** Something said in the conversation of a request about a record. */
export interface PortraitTalk {
  id: number
  requestId: number
  number: string
  summary: string
  at: Instant
  from: string
  text: string
}

export const readPortraitTalk = endpoint<OfRecord, { rows: PortraitTalk[] }>({
  method: 'GET',
  path: '/api/registers/:register/:id/talk',
  says: 'What was said last in conversations about a record, newest first.',
  may: 'desk.read',
  input: ofRecord,
})

/** A place or an asset in the tree in which everything stands. */
export interface TreeNode {
  type: 'place' | 'asset'
  id: number
  code: string
  name: string
  /** How many stand directly in it. */
  below: number
  /** Open orders on it and everything below, and those of them past their target. */
  open: number
  late: number
}

export interface TreeInput {
  under?: 'place' | 'asset'
  id?: number
  after?: string
}

export const readTree = endpoint<TreeInput, { rows: TreeNode[]; next: string | null }>({
  method: 'GET',
  path: '/api/tree',
  says: 'What stands directly in a place or is part of an asset; the sites, when nothing is named.',
  may: 'desk.read',
  input: Joi.object<TreeInput, true>({ under: field.oneOf(['place', 'asset'] as const), id: field.id(), after: Joi.string().max(200) }).and('under', 'id'),
})

/** A node without what is counted in it. */
export type PathNode = Pick<TreeNode, 'type' | 'id' | 'code' | 'name'>

/** The way down to a place or an asset, itself last. */
export const readTreePath = endpoint<{ under: 'place' | 'asset'; id: number }, { nodes: PathNode[] }>({
  method: 'GET',
  path: '/api/tree/path',
  says: 'The nodes of the tree from the site down to one place or asset.',
  may: 'desk.read',
  input: Joi.object<{ under: 'place' | 'asset'; id: number }, true>({ under: field.oneOf(['place', 'asset'] as const).required(), id: field.id().required() }),
})
