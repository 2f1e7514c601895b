import { notice, openHolders } from '#server/kit'
import type { Telling } from '#server/kit'
import { unableAt } from './unable'

/** Somebody lost their account or the right to approve: administrators hear of what waits for them in vain. */
export async function noticeOfUnable(telling: Telling): Promise<void> {
  const { tx, event } = telling
  const accountId = Number(event.details?.accountId)
  const waiting = (await unableAt(tx, { siteIds: null })).filter((one) => one.accountId === accountId && (one.rules || one.consents || one.orders.length))
  for (const one of waiting) {
    const whom = await openHolders(tx, 'setup.edit', one.siteId)
    await notice(
      telling,
      whom.map((row) => row.id),
      `Rules or orders of ${waiting.map((each) => each.siteCode).join(' and ')} wait for ${one.name}, who cannot decide any more. Hand it over in Setup.`,
    )
  }
}
