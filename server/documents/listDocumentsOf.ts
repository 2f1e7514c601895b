import { and, eq } from 'drizzle-orm'
import * as contract from '#contract/documents'
import { query } from '#server/kit'
import { seenThing } from '#server/registers'
import { documents } from '../tables'
import { documentRows } from './documentRows'
import { todayAt } from './today'

export default query(contract.listDocumentsOf, async ({ db, who, input, now }) => {
  const { siteId, mayEdit } = await seenThing(db, who, input.on, input.id)
  const rows = await documentRows(db, who, await todayAt(db, siteId, now), and(eq(documents.on, input.on), eq(documents.recordId, input.id)))
  return { rows, mayAdd: mayEdit }
})
