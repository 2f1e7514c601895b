import { and, eq, inArray, isNull } from 'drizzle-orm'
import type { EventKind } from '#core/events'
import { notices, pushes, pushSubscriptions } from '../tables'
import type { Tx } from './database'
import { writeMail } from './outbox'
import type { Mail } from './outbox'
import type { PublishedEvent, Subscriber } from './publisher'
import type { Service } from './service'

/** An event being told of, in the publishing transaction. */
export interface Telling {
  tx: Tx
  event: PublishedEvent
  service: Service
}

/** What one room writes to people of each kind of event it has something to say of. */
export type Mails = Partial<Record<EventKind, (telling: Telling) => Promise<void>>>

/** Writes mails and notices in the publishing transaction, so that each is written exactly once; room by room. */
export function writerOf(rooms: readonly Mails[], service: () => Service): Subscriber {
  return async (tx, event) => {
    for (const mails of rooms) await mails[event.kind]?.({ tx, event, service: service() })
  }
}

/** A mail to be sent, once for each event, occasion and address. */
export async function mail(
  { tx, event }: Telling,
  occasion: string,
  to: string,
  subject: string,
  text: string,
  more: Partial<Pick<Mail, 'html' | 'from' | 'requestId' | 'followerId' | 'inReplyTo' | 'fileId' | 'fileName' | 'calendar'>> = {},
): Promise<void> {
  await writeMail(tx, event.at, { eventId: event.id, occasion, to, subject, text, ...more })
}

/** Something said inside the application, once for each event and person. It leads to what the event is about, or to the page that is named. */
export async function notice({ tx, event }: Telling, accountIds: number[], sentence: string, leads?: string): Promise<void> {
  if (!accountIds.length) return
  const leadsTo = leads ?? (event.register ? `/registers/${event.register}/${event.recordId}` : null)
  await tx
    .insert(notices)
    .ignore()
    .values(
      [...new Set(accountIds)].map((accountId) => ({
        eventId: event.id,
        accountId,
        sentence: sentence.slice(0, 300),
        orderId: event.orderId,
        requestId: event.requestId,
        leadsTo,
        at: event.at,
      })),
    )
  await pushNotices({ tx, event }, accountIds, sentence.slice(0, 300), leadsTo)
}

/** Browsers of theirs that asked for it are told, too. */
async function pushNotices({ tx, event }: Pick<Telling, 'tx' | 'event'>, accountIds: number[], sentence: string, leadsTo: string | null): Promise<void> {
  const browsers = await tx.select({ id: pushSubscriptions.id }).from(pushSubscriptions).where(inArray(pushSubscriptions.accountId, accountIds))
  if (!browsers.length) return
  await tx.insert(pushes).values(browsers.map(({ id }) => ({ subscriptionId: id, sentence, leadsTo: leadsTo ?? '/rounds', nextAt: event.at })))
}

/** Everything somebody was told of so far is read. */
export async function markNoticesRead(tx: Tx, accountId: number, now: Date): Promise<void> {
  await tx
    .update(notices)
    .set({ readAt: now })
    .where(and(eq(notices.accountId, accountId), isNull(notices.readAt)))
}
