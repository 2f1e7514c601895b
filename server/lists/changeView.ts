import { eq } from 'drizzle-orm'
import * as contract from '#contract/lists'
import { command, conflict } from '#server/kit'
import { savedViews } from '../tables'
import { lockOwnView } from './lockOwnView'
import { viewsOf, viewValues, withUniqueName } from './views'

export default command(contract.changeView, async ({ tx, who, input }) => {
  const view = await lockOwnView(tx, who, input.id)
  if (view.version !== input.version) throw conflict(view.version, [{ field: 'address', theirs: view.address, yours: input.address }])
  const values = await viewValues(tx, who, input)
  await withUniqueName(input.name, () =>
    tx
      .update(savedViews)
      .set({ ...values, version: view.version + 1 })
      .where(eq(savedViews.id, view.id)),
  )
  return viewsOf(tx, who)
})
