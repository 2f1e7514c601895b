import type { EventKind } from '#core/events'
import { mails, notices } from '../tables'
import type { Tx } from './database'
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

type MailRow = typeof mails.$inferInsert

/** A mail to be sent, once for each event, occasion and address. */
export async function mail(
  { tx, event }: Telling,
  occasion: string,
  to: string,
  subject: string,
  text: string,
  more: Pick<MailRow, 'html' | 'from' | 'requestId' | 'followerId' | 'inReplyTo'> = {},
): Promise<void> {
  await tx
    .insert(mails)
    .ignore()
    .values({ eventId: event.id, occasion, to, subject: subject.slice(0, 250), text, ...more, state: 'waiting', nextAt: event.at, writtenAt: event.at })
}

/** Something said inside the application, once for each event and person. */
export async function notice({ tx, event }: Telling, accountIds: number[], sentence: string): Promise<void> {
  if (!accountIds.length) return
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
        at: event.at,
      })),
    )
}
