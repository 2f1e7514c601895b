import type { Minor } from '#core/kit'
import type { PayerCharge } from './charging'

/** One line of the journal: one side is zero, the other is not. */
export interface JournalEntry {
  account: string
  debit: Minor
  credit: Minor
}

/** What a vendor is owed for an order. */
export interface VendorPayable {
  vendorId: number
  net: Minor
  tax: Minor
}

/** Names of the accounts, in one place. */
export const accounts = {
  receivable: (payerId: number) => `receivable:${payerId}`,
  ownCost: (payerId: number) => `own-cost:${payerId}`,
  recovery: 'maintenance-recovery',
  outputTax: 'output-tax',
  vendorCost: 'vendor-cost',
  inputTax: 'input-tax',
  payable: (vendorId: number) => `payable:${vendorId}`,
}

/** The balanced journal of a posting: what payers owe, what vendors are owed. Zero lines are left out. */
export function journalOf(charges: PayerCharge[], payables: VendorPayable[]): JournalEntry[] {
  const entries: JournalEntry[] = []
  const debit = (account: string, amount: Minor) => put(account, amount, 0)
  const credit = (account: string, amount: Minor) => put(account, 0, amount)
  const put = (account: string, left: Minor, right: Minor) => {
    if (left + right === 0) return
    entries.push(left + right < 0 ? { account, debit: -right || 0, credit: -left || 0 } : { account, debit: left, credit: right })
  }
  for (const charge of charges) {
    debit(charge.ownCost ? accounts.ownCost(charge.payerId) : accounts.receivable(charge.payerId), charge.gross)
    credit(accounts.recovery, charge.net)
    credit(accounts.outputTax, charge.tax)
  }
  for (const payable of payables) {
    debit(accounts.vendorCost, payable.net)
    debit(accounts.inputTax, payable.tax)
    credit(accounts.payable(payable.vendorId), payable.net + payable.tax)
  }
  return entries
}

/** The journal that takes another back: the same lines with the sides changed. */
export function reversalOf(entries: JournalEntry[]): JournalEntry[] {
  return entries.map((entry) => ({ account: entry.account, debit: entry.credit, credit: entry.debit }))
}

/** Debits minus credits; zero for every journal that may be kept. */
export function imbalance(entries: JournalEntry[]): Minor {
  return entries.reduce((sum, entry) => sum + entry.debit - entry.credit, 0)
}
