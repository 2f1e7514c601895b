import * as contract from '#contract/requests'
import { query } from '#server/kit'
import { findSpots, spotsNear } from '#server/places'
import { siteByCode } from './siteByCode'

export default query(contract.findCounterSpots, async ({ db, input }) => {
  const site = await siteByCode(db, input.site)
  if (input.q) return { rows: await findSpots(db, site.id, input.q, input.near) }
  return { rows: input.near ? await spotsNear(db, site.id, input.near) : [] }
})
