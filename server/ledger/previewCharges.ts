import * as contract from '#contract/ledger'
import { query } from '#server/kit'
import { seenOrder } from '#server/orders'
import { chargesFor } from './chargesFor'

export default query(contract.previewCharges, async ({ db, who, input }) => {
  const { id } = await seenOrder(db, who, input.id)
  const { charges, terms } = await chargesFor(db, id)
  return {
    charges: charges.map(({ payerId, ownCost, net, tax, gross }) => {
      const { payer, shareBp } = terms.find((one) => one.payer.id === payerId)!
      return { payerId, payerCode: payer.code, payerName: payer.name, shareBp, ownCost, netMinor: net, taxMinor: tax, grossMinor: gross }
    }),
  }
})
