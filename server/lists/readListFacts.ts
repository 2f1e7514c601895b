import { sql } from 'drizzle-orm'
import * as contract from '#contract/lists'
import { query } from '#server/kit'
import { namesIn } from './names'
import { rowsOf } from './sources'
import { askedOf } from './asked'

/** Counting goes on no further: who has more rows than this narrows the list rather than reading on. */
const MOST_COUNTED = 10_000

export default query(contract.readListFacts, async ({ db, who, input, now }) => {
  const { ask, from } = await askedOf({ db, who, now }, input.kind, input.ask)
  const some = rowsOf(db, ask, from, MOST_COUNTED + 1)
  const [[counted], names] = await Promise.all([db.select({ n: sql<string>`count(*)` }).from(some), namesIn(db, who, ask)])
  const count = Number(counted!.n)
  return { count: Math.min(count, MOST_COUNTED), more: count > MOST_COUNTED, names }
})
