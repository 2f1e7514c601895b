import * as contract from '#contract/documents'
import { documentReasons } from '#core/documents'
import type { Audience } from '#core/documents'
import { Refusal } from '#core/kit'
import { preparedCommand } from '#server/kit'
import { keepDocument, mayKeepWith } from './changeDocument'
import { documentRow } from './documentRows'
import { readDocumentSent } from './sentDocument'
import { todayAt } from './today'

export default preparedCommand(
  contract.addDocument,
  ({ request, input }) => readDocumentSent(request.file, input.name),
  async ({ tx, who, input, now, tell, ready: file }) => {
    const { on, id, kind } = input
    const { siteId } = await mayKeepWith(tx, who, on, id)
    const dates = { validFrom: input.validFrom || null, validUntil: input.validUntil || null, remindDays: input.remindDays ?? null }
    const reasons = documentReasons(dates)
    if (reasons.length) throw new Refusal(reasons)
    const audience = (input.audience ? [...new Set(input.audience.split(','))] : []) as Audience[]
    const saved = await keepDocument({ tx, who, now, tell }, { on, id, siteId }, { kind, title: input.title, ...dates, audience }, file)
    return documentRow(tx, who, await todayAt(tx, siteId, now), saved.id)
  },
  ({ db, who, input }) => mayKeepWith(db, who, input.on, input.id),
)
