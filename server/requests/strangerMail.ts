import { and, count, eq, gt } from 'drizzle-orm'
import { mayMailStranger, STRANGER_HOURS } from '#core/requests'
import type { StrangerOccasion } from '#core/requests'
import type { Tx } from '#server/kit'
import { lockSetting, writeMail } from '#server/kit'
import { mails } from '../tables'
import type { SiteRecord } from './siteByCode'

/** The row that is locked while mails are counted. */
const COUNTING = 'stranger_mail'

interface StrangerMail {
  occasion: StrangerOccasion
  site: SiteRecord
  to: string
  subject: string
  text: string
  requestId?: number
  followerId?: number
  inReplyTo?: string
}

/** Writes a mail a stranger asked for, unless enough went to that address, or about that request, within the hour. */
export async function mailStranger(tx: Tx, now: Date, { site, ...mail }: StrangerMail): Promise<boolean> {
  if (!(await strangerMayBeMailed(tx, now, mail.occasion, mail.to, mail.requestId))) return false
  await writeMail(tx, now, { ...mail, from: site.deskEmail })
  return true
}

export async function strangerMayBeMailed(tx: Tx, now: Date, occasion: StrangerOccasion, to: string, requestId?: number): Promise<boolean> {
  // One after the other for an address, so that many at once are counted too.
  await lockSetting(tx, COUNTING, 0)
  const since = and(eq(mails.occasion, occasion), gt(mails.writtenAt, new Date(now.getTime() - STRANGER_HOURS * 3_600_000)))
  const [toAddress] = await tx
    .select({ n: count() })
    .from(mails)
    .where(and(eq(mails.to, to), since))
  const [aboutRequest] = requestId
    ? await tx
        .select({ n: count() })
        .from(mails)
        .where(and(eq(mails.requestId, requestId), since))
    : [{ n: 0 }]
  return mayMailStranger(occasion, { toAddress: toAddress!.n, aboutRequest: aboutRequest!.n })
}
