import * as contract from '#contract/documents'
import { documentReasons, documentWords } from '#core/documents'
import type { Audience } from '#core/documents'
import { Refusal } from '#core/kit'
import { preparedCommand } from '#server/kit'
import { documents } from '../tables'
import { keepFile, mayKeepWith, toldOn } from './changeDocument'
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
    const title = input.title || file.name.replace(/\.[^.]+$/, '').slice(0, 140)
    const audience = (input.audience ? [...new Set(input.audience.split(','))] : []) as Audience[]
    const [saved] = await tx
      .insert(documents)
      .values({ on, recordId: id, kind, title, ...dates, audience, words: documentWords(title, file.name, file.inside), addedBy: who.accountId! })
      .$returningId()
    await keepFile(tx, saved!, 1, file, who, now)
    await tell({ kind: 'document.add', siteId, ...toldOn(on, id), details: { title, documentId: saved!.id } })
    return documentRow(tx, who, await todayAt(tx, siteId, now), saved!.id)
  },
  ({ db, who, input }) => mayKeepWith(db, who, input.on, input.id),
)
