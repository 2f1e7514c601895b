import { eq } from 'drizzle-orm'
import * as contract from '#contract/lists'
import { command } from '#server/kit'
import { defaultViews, savedViews } from '../tables'
import { lockOwnView } from './lockOwnView'
import { viewsOf } from './views'

export default command(contract.dropView, async ({ tx, who, input }) => {
  const view = await lockOwnView(tx, who, input.id)
  await tx.delete(defaultViews).where(eq(defaultViews.viewKey, `v${view.id}`))
  await tx.delete(savedViews).where(eq(savedViews.id, view.id))
  return viewsOf(tx, who)
})
