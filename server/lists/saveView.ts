import * as contract from '#contract/lists'
import { command } from '#server/kit'
import { savedViews } from '../tables'
import { viewsOf, viewValues, withUniqueName } from './views'

export default command(contract.saveView, async ({ tx, who, input }) => {
  const values = await viewValues(tx, who, input)
  const [saved] = await withUniqueName(input.name, () =>
    tx
      .insert(savedViews)
      .values({ ...values, ownerId: who.accountId! })
      .$returningId(),
  )
  return { ...(await viewsOf(tx, who)), key: `v${saved!.id}` }
})
