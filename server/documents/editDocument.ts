import { eq } from 'drizzle-orm'
import * as contract from '#contract/documents'
import { documentReasons } from '#core/documents'
import { Refusal } from '#core/kit'
import { command } from '#server/kit'
import { documents } from '../tables'
import { lockDocument, toldOn } from './changeDocument'
import { documentRow } from './documentRows'
import { todayAt } from './today'

/** What the fields are called on the timeline. */
const NAMES = { kind: 'kind', title: 'title', validFrom: 'valid from', validUntil: 'valid until', remindDays: 'reminder', audience: 'who may see it' } as const

export default command(contract.editDocument, async ({ tx, who, input, now, tell }) => {
  const { document, thing } = await lockDocument(tx, who, input)
  const { id, version: _, retired, ...sent } = input
  const said = Object.fromEntries(Object.entries(sent).flatMap(([name, value]) => (value === undefined ? [] : [[name, value === '' ? null : value]])))
  const after = { ...document, ...said }
  const reasons = documentReasons(after)
  if (reasons.length) throw new Refusal(reasons)
  const fields = (Object.keys(NAMES) as (keyof typeof NAMES)[]).filter((name) => JSON.stringify(after[name]) !== JSON.stringify(document[name]))
  const wasRetired = document.retiredAt !== null
  const turned = retired !== undefined && retired !== wasRetired
  if (fields.length || turned) {
    // A title that is gone is not found by any more; what is inside stays.
    const words = fields.includes('title') ? [after.title, document.words.slice(document.title.length)].join('') : document.words
    await tx
      .update(documents)
      .set({ ...said, words, ...(turned ? { retiredAt: retired ? now : null } : {}), version: document.version + 1 })
      .where(eq(documents.id, id))
    const about = { siteId: thing.siteId, ...toldOn(document.on, document.recordId) }
    const called = { title: after.title, documentId: id }
    if (fields.length) await tell({ kind: 'document.edit', ...about, details: { ...called, fields: fields.map((name) => NAMES[name]) } })
    if (turned) await tell({ kind: retired ? 'document.retire' : 'document.restore', ...about, details: called })
  }
  return documentRow(tx, who, await todayAt(tx, thing.siteId, now), id)
})
