import { asc, eq } from 'drizzle-orm'
import * as contract from '#contract/assets'
import { query } from '#server/kit'
import { sites, transfers } from '../tables'
import { transferRows } from './transferRows'

export default query(contract.listTransfers, async ({ db, who, input }) => {
  const [rows, all] = await Promise.all([
    transferRows(db, who, input.assetId ? eq(transfers.assetId, input.assetId) : undefined),
    db.select({ id: sites.id, name: sites.name }).from(sites).orderBy(asc(sites.id)),
  ])
  return { rows, sites: all }
})
