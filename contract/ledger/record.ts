import { addOne, editOne, readOne, restoreOne, retireOne } from '#contract/registers'
import type { RecordSheet } from '#contract/registers'
import { PAYER_FIELDS } from '#core/ledger'
import type { PayerFields } from '#core/ledger'

export type PayerSheet = RecordSheet<PayerFields>
export const readPayer = readOne<PayerFields>('payers')
export const addPayer = addOne<PayerFields, 'code' | 'name' | 'kind' | 'taxBp'>('payers', 'payers.edit', PAYER_FIELDS)
export const editPayer = editOne<PayerFields>('payers', 'payers.edit', PAYER_FIELDS)
export const retirePayer = retireOne<PayerFields>('payers', 'payers.edit')
export const restorePayer = restoreOne<PayerFields>('payers', 'payers.edit')
