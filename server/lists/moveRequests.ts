import { and, inArray } from 'drizzle-orm'
import * as contract from '#contract/lists'
import { command, withinSites } from '#server/kit'
import { decline, takeUp } from '#server/requests'
import { requests } from '../tables'
import { moveSeveral } from './moveSeveral'

export default command(contract.moveRequests, async ({ tx, who, input, now }) => {
  const { move, items, reason } = input
  const known = await tx
    .select({ id: requests.id, number: requests.number, state: requests.state, version: requests.version })
    .from(requests)
    .where(
      and(
        inArray(
          requests.id,
          items.map((item) => item.id),
        ),
        withinSites(who, requests.siteId),
      ),
    )
  const rows = await moveSeveral(tx, items, known, (inner, item) =>
    move === 'takeUp' ? takeUp(inner, who, now, item) : decline(inner, who, now, { ...item, reason: reason ?? '' }),
  )
  return { rows }
})
