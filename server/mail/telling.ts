import type { PublishedEvent, Service, Tx } from '#server/kit'
import { mails, notices } from '../tables'

/** An event being told of, in the publishing transaction. */
export interface Telling {
  tx: Tx
  event: PublishedEvent
  service: Service
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
