import Joi from 'joi'
import { endpoint, field } from '#contract/kit'
import type { Instant } from '#contract/kit'
import type { ChargeRow } from '#contract/orders'

export interface StatementRow {
  number: string
  payerId: number
  payerCode: string
  payerName: string
  month: string
  jobs: number
  netMinor: number
  taxMinor: number
  grossMinor: number
  ownCost: boolean
}

export const listStatements = endpoint<{ month?: string }, { months: { month: string; closedAt: Instant | null }[]; month: string; rows: StatementRow[] }>({
  method: 'GET',
  path: '/api/statements',
  says: 'Statements of a month, one for each payer.',
  may: 'ledger.read',
  input: Joi.object<{ month?: string }, true>({ month: Joi.string().pattern(/^\d{4}-\d{2}$/) }),
})

export interface StatementLine {
  kind: string
  sourceId: number
  description: string
  quantity: string
  unit: string
  unitCostMinor: number
  costMinor: number
  markupBp: number
  netMinor: number
}

export interface StatementJob {
  chargeId: number
  orderId: number
  orderNumber: string
  summary: string
  place: string | null
  noteForPayer: string | null
  postedAt: Instant
  reversal: boolean
  shareBp: number
  netMinor: number
  taxBp: number
  taxMinor: number
  grossMinor: number
  lines: StatementLine[]
}

export interface Statement extends StatementRow {
  currency: string
  site: string
  jobList: StatementJob[]
}

const byStatement = Joi.object<{ payerId: number; month: string }, true>({
  payerId: field.id().required(),
  month: Joi.string()
    .pattern(/^\d{4}-\d{2}$/)
    .required(),
})

export const readStatement = endpoint<{ payerId: number; month: string }, Statement>({
  method: 'GET',
  path: '/api/statements/:payerId/:month',
  says: 'One statement, down to hours, parts and bill lines.',
  may: 'ledger.read',
  input: byStatement,
})

export const downloadStatementPdf = endpoint<{ payerId: number; month: string }, Blob>({
  method: 'GET',
  path: '/api/statements/:payerId/:month/pdf',
  says: 'The statement as PDF.',
  may: 'ledger.read',
  answers: 'pdf',
  input: byStatement,
})

export const downloadStatementCsv = endpoint<{ payerId: number; month: string }, Blob>({
  method: 'GET',
  path: '/api/statements/:payerId/:month/csv',
  says: 'The statement as CSV (RFC 4180).',
  may: 'ledger.read',
  answers: 'csv',
  input: byStatement,
})

export interface PayableRow {
  id: number
  vendor: string
  orderId: number
  orderNumber: string
  netMinor: number
  taxMinor: number
  postedAt: Instant
  paid: boolean
}

export const listPayables = endpoint<object, { rows: PayableRow[]; currency: string }>({
  method: 'GET',
  path: '/api/payables',
  says: 'What vendors are owed, newest first.',
  may: 'ledger.read',
})

export const previewCharges = endpoint<{ id: number }, { charges: Omit<ChargeRow, 'id'>[] }>({
  method: 'GET',
  path: '/api/orders/:id/charges-to-come',
  says: 'What posting an order would charge its payers, as it stands.',
  may: 'desk.read',
  input: Joi.object<{ id: number }, true>({ id: field.id().required() }),
})

export * from './record'
