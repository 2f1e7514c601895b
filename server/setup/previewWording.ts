import { desc, eq } from 'drizzle-orm'
import * as contract from '#contract/setup'
import { Refusal, refuse } from '#core/kit'
import { fillWording, OCCASION_NAMES, wordingReasons } from '#core/requests'
import { command, mySite } from '#server/kit'
import { htmlOf } from '#server/kit'
import { ownFieldsOf } from '#server/own'
import { valuesFor } from '#server/requests'
import { requests } from '../tables'

const EXAMPLES: Partial<Record<contract.IntakeSetup['wordings'][number]['occasion'], string>> = {
  question: 'Which of the three lights is it?',
  declined: 'It belongs to the tenant; we have told them.',
  scheduled: 'tomorrow morning',
  message: 'The part has come; we will be there before noon.',
}

export default command(contract.previewWording, async ({ tx, who, input, service }) => {
  const reasons = wordingReasons(
    input,
    (await ownFieldsOf(tx, 'requests')).map((field) => field.label),
  )
  if (reasons.length) throw new Refusal(reasons)
  const site = await mySite(tx, who, input.siteId)
  const [request] = await tx.select().from(requests).where(eq(requests.siteId, site.id)).orderBy(desc(requests.id)).limit(1)
  if (!request) refuse('nothing_to_show', 'This site has no request yet to fill the words with.', 'text')
  // The link of a preview leads nowhere: a private link is for its reporter alone.
  const values = await valuesFor(
    tx,
    site,
    { request, name: request.reporterName, summary: request.writtenSummary, link: `${service.publicUrl()}/t/…` },
    EXAMPLES[input.occasion] ?? '',
  )
  const text = fillWording(input.text, values)
  return { subject: fillWording(input.subject, values), text, html: htmlOf(text), of: `${request.number}, ${OCCASION_NAMES[input.occasion].toLowerCase()}` }
})
