import * as contract from '#contract/lists'
import { refuse } from '#core/kit'
import { command } from '#server/kit'
import { defaultViews } from '../tables'
import { viewsOf } from './views'

export default command(contract.chooseUsualView, async ({ tx, who, input }) => {
  const { rows } = await viewsOf(tx, who)
  if (!rows.some((row) => row.key === input.key)) refuse('view_unknown', 'That view is not one of yours to open.', 'key')
  await tx
    .insert(defaultViews)
    .values({ accountId: who.accountId!, viewKey: input.key })
    .onDuplicateKeyUpdate({ set: { viewKey: input.key } })
  return viewsOf(tx, who)
})
