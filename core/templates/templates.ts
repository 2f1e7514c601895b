import type { Reason } from '#core/kit'
import type { OrderKind } from '#core/orders'
import type { Priority } from '#core/requests'

/** Who pays for what a template makes: whoever pays for the place or asset, or always the same. */
export const PAYER_RULES = ['place', 'fixed'] as const
export type PayerRule = (typeof PAYER_RULES)[number]
export const PAYER_RULE_NAMES: Record<PayerRule, string> = { place: 'Who pays for the place', fixed: 'Always the same' }

/** What orders are made from, many at once. */
export interface TemplateFields {
  siteId: number
  name: string
  kind: OrderKind
  /** "{code}" and "{name}" stand for those of the place or asset. */
  summary: string
  description: string
  priority: Priority
  categoryId: number | null
  tradeId: number | null
  teamId: number | null
  leadId: number | null
  supervisorId: number | null
  methodId: number | null
  payerRule: PayerRule
  payerId: number | null
  estimateMinor: number | null
  /** Days until it is to be done; null for what its priority promises. */
  dueDays: number | null
}
export const MOST_DUE_DAYS = 730
/** So many orders are made in one act. */
export const MOST_MADE = 1_000
export const MOST_SUMMARY = 140

/** What is wrong with a template; empty when nothing is. */
export function templateReasons({ name, summary, description, payerRule, payerId }: TemplateFields): Reason[] {
  const needed = (missing: boolean, field: string, sentence: string): Reason[] => (missing ? [{ code: 'needed', sentence, field }] : [])
  return [
    ...needed(!name.trim(), 'name', 'Say what it is called.'),
    ...needed(!summary.trim(), 'summary', 'Say in one line what is done.'),
    ...needed(!description.trim(), 'description', 'Say what is to be done.'),
    ...needed(payerRule === 'fixed' && payerId === null, 'payerId', 'Choose who pays.'),
    ...[...summary.matchAll(/\{([^}]*)\}/g)]
      .filter(([, word]) => word !== 'code' && word !== 'name')
      .map(([all]) => ({ code: 'unknown_word', sentence: `${all} means nothing here: write {code} or {name}.`, field: 'summary' })),
  ]
}

/** The summary of one order, cut to what a summary holds. */
export const filledSummary = (summary: string, { code, name }: { code: string; name: string }): string =>
  summary.replaceAll('{code}', code).replaceAll('{name}', name).replace(/\s+/g, ' ').trim().slice(0, MOST_SUMMARY)

/** Codes as people hand them over: one a line, with commas, semicolons or tabs between, or the first column of a table; each once. */
export function codesIn(text: string): string[] {
  const seen = new Set<string>()
  const codes: string[] = []
  for (const line of text.split(/\r?\n/)) {
    // Of a row of a table the first cell is meant; a list on one line is meant as a whole.
    const cells = line.split(/[;\t]/).map((cell) => cell.trim().replace(/^"(.*)"$/, '$1'))
    const first = cells.length > 1 && line.includes('\t') ? [cells[0]!] : cells.flatMap((cell) => cell.split(','))
    for (const cell of first) {
      const code = cell.trim().replace(/^"(.*)"$/, '$1')
      if (!code || seen.has(code.toLowerCase())) continue
      seen.add(code.toLowerCase())
      codes.push(code)
    }
  }
  return codes
}

/** An order that is open at the same place or asset, as far as doubling goes. */
export interface OpenOrder {
  id: number
  number: string
  summary: string
  methodIds: readonly number[]
  templateIds: readonly number[]
}

/** The open order a new one would double: made from the same template, done by the same method, or called the same. */
export const doubledBy = (made: { templateId: number; methodId: number | null; summary: string }, open: readonly OpenOrder[]): OpenOrder | null =>
  open.find(
    (one) =>
      one.templateIds.includes(made.templateId) ||
      (made.methodId !== null && one.methodIds.includes(made.methodId)) ||
      one.summary.toLowerCase() === made.summary.toLowerCase(),
  ) ?? null
