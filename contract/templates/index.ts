import Joi from 'joi'
import { endpoint, field } from '#contract/kit'
import type { Instant } from '#contract/kit'
import { ORDER_KINDS } from '#core/orders'
import { PRIORITIES } from '#core/requests'
import { MOST_DUE_DAYS, MOST_MADE, MOST_SUMMARY, PAYER_RULES } from '#core/templates'
import type { TemplateFields } from '#core/templates'

export interface Template extends TemplateFields {
  id: number
  version: number
  retired: boolean
  /** What its ids are called. */
  names: { method: string | null; payer: string | null }
}
/** Orders that were made in one act. */
export interface Batch {
  id: number
  template: string
  orders: number
  lead: { id: number; number: string } | null
  at: Instant
  by: string
  takenBack: boolean
}

export const listTemplates = endpoint<object, { rows: Template[]; batches: Batch[]; mayEdit: boolean }>({
  method: 'GET',
  path: '/api/templates',
  says: 'Templates that make many orders at once, and what was made from them last.',
  may: 'desk.read',
})

const fields = {
  siteId: field.id().required(),
  name: field.line(120).required(),
  kind: field.oneOf(ORDER_KINDS).required(),
  summary: field.line(MOST_SUMMARY).required(),
  description: field.words(4000).min(1).required(),
  priority: field.oneOf(PRIORITIES).required(),
  categoryId: field.id().allow(null).required(),
  tradeId: field.id().allow(null).required(),
  teamId: field.id().allow(null).required(),
  leadId: field.id().allow(null).required(),
  supervisorId: field.id().allow(null).required(),
  methodId: field.id().allow(null).required(),
  payerRule: field.oneOf(PAYER_RULES).required(),
  payerId: field.id().allow(null).required(),
  estimateMinor: field.minor().allow(null).required(),
  dueDays: Joi.number().integer().min(1).max(MOST_DUE_DAYS).allow(null).required(),
}
export const addTemplate = endpoint<TemplateFields, Template>({
  method: 'POST',
  path: '/api/templates',
  says: 'Write a template.',
  may: 'orders.edit',
  input: Joi.object<TemplateFields, true>(fields),
})
type Changed = TemplateFields & { id: number; version: number; retired?: boolean }
export const editTemplate = endpoint<Changed, Template>({
  method: 'PATCH',
  path: '/api/templates/:id',
  says: 'Change a template, or put it away. What was made from it stays as it is.',
  may: 'orders.edit',
  input: Joi.object<Changed, true>({ ...fields, id: field.id().required(), version: field.version().required(), retired: Joi.boolean() }),
})

export const WITHIN = ['spaces', 'assets'] as const
/** What orders are made for: rows that were marked, everything of a kind in a branch, or codes and tags. */
export interface Selection {
  placeIds?: number[]
  assetIds?: number[]
  within?: { placeId: number; what: (typeof WITHIN)[number]; classCode?: string }
  /** Codes of places and tags of assets, as they were handed over. */
  codes?: string
}
const ids = () => Joi.array().items(field.id()).unique().max(MOST_MADE)
const selection = {
  placeIds: ids(),
  assetIds: ids(),
  within: Joi.object<Required<Selection>['within'], true>({
    placeId: field.id().required(),
    what: field.oneOf(WITHIN).required(),
    classCode: Joi.string().max(8),
  }),
  codes: Joi.string().max(40_000),
}

/** What one place or asset would get. */
export interface ToMake {
  /** "p12" for a place, "a5" for an asset. */
  key: string
  code: string
  name: string
  place: string | null
  summary: string
  payer: string | null
  /** The open order it would double. */
  doubled: { id: number; number: string; summary: string } | null
  /** Why nothing can be made for it. */
  problem: string | null
}
interface Preview {
  rows: ToMake[]
  /** Codes nobody here is called by. */
  unknown: string[]
}

export const previewOrders = endpoint<Selection & { id: number }, Preview>({
  method: 'POST',
  path: '/api/templates/:id/preview',
  says: 'What a template would make of a selection, and what of it would be doubled. Makes nothing.',
  may: 'orders.edit',
  input: Joi.object<Selection & { id: number }, true>({ id: field.id().required(), ...selection }),
})

/** Each by itself, under a new order that leads them, or under one that is there. */
export const LEADS = ['none', 'new', 'order'] as const
interface Making extends Selection {
  id: number
  version: number
  lead: (typeof LEADS)[number]
  leadNumber?: string
  /** Keys of those to leave out. */
  except?: string[]
  /** Keys of those to make although something open would be doubled. */
  doubled?: string[]
}
export interface MadeRow {
  key: string
  code: string
  order: { id: number; number: string } | null
  sentence: string | null
}
export const makeOrders = endpoint<Making, { batchId: number; lead: { id: number; number: string } | null; rows: MadeRow[] }>({
  method: 'POST',
  path: '/api/templates/:id/orders',
  says: 'Make the orders, as drafts, in one act.',
  may: 'orders.edit',
  input: Joi.object<Making, true>({
    id: field.id().required(),
    version: field.version().required(),
    ...selection,
    lead: field.oneOf(LEADS).required(),
    leadNumber: field.line(16),
    except: Joi.array().items(Joi.string().max(16)).max(MOST_MADE),
    doubled: Joi.array().items(Joi.string().max(16)).max(MOST_MADE),
  }),
})

export const takeBackBatch = endpoint<{ id: number }, { taken: number; kept: { id: number; number: string; sentence: string }[] }>({
  method: 'POST',
  path: '/api/batches/:id/take-back',
  says: 'Take back what was made in one act: what nobody has begun is discarded, or called off; the rest stays and is named.',
  may: 'orders.edit',
  input: Joi.object<{ id: number }, true>({ id: field.id().required() }),
})
