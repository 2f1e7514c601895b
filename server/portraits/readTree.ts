import * as contract from '#contract/portraits'
import { query } from '#server/kit'
import { seenRecord } from '#server/registers'
import { KEEPERS } from './keepers'
import { childrenOf, topOfTree, withBadges } from './tree'

const MOST = 200

export default query(contract.readTree, async ({ db, who, input, now }) => {
  const { under, id, after } = input
  if (!under || !id) return { rows: await withBadges(db, who, await topOfTree(db, who), now), next: null }
  await seenRecord(db, KEEPERS[under === 'place' ? 'places' : 'assets'], who, id)
  const { rows, next } = await childrenOf(db, { type: under, id }, { after, limit: MOST })
  return { rows: await withBadges(db, who, rows, now), next }
})
