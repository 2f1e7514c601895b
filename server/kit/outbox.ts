import { and, asc, eq, lt, lte, or, sql } from 'drizzle-orm'
import { mails } from '../tables'
import type { Reader, Tx } from './database'
import { anyLike } from './anyLike'

export type Mail = typeof mails.$inferSelect
type NewMail = Omit<typeof mails.$inferInsert, 'state' | 'nextAt' | 'writtenAt'>

/** Private links of every kind, as mails carry them. */
const LINK = '/(t|p|a|mine)/[A-Za-z0-9_-]{43}'

/** A mail as it is kept once it was sent: its links lead nowhere. */
export const withoutPrivateLinks = (text: string): string => text.replace(new RegExp(LINK, 'g'), '/…')

/** A mail that goes out once the transaction ends; the same occasion of an event is written to an address once. */
export async function writeMail(tx: Tx, at: Date, mail: NewMail): Promise<void> {
  await tx
    .insert(mails)
    .ignore()
    .values({ ...mail, subject: mail.subject.slice(0, 250), state: 'waiting', nextAt: at, writtenAt: at })
}

const sendableAt = (now: Date) => and(eq(mails.state, 'waiting'), lte(mails.nextAt, now))

export const mailsWait = (db: Reader, now: Date) => anyLike(db, mails, sendableAt(now))

/** Mails to be sent now, locked; another server takes others. */
export const lockWaitingMails = (tx: Tx, now: Date, most: number) =>
  tx.select().from(mails).where(sendableAt(now)).orderBy(asc(mails.id)).limit(most).for('update', { skipLocked: true })

/** What became of trying to send a mail. */
export async function noteSending(tx: Tx, id: number, outcome: Pick<Mail, 'attempts' | 'state'> & Partial<Mail>): Promise<void> {
  await tx.update(mails).set(outcome).where(eq(mails.id, id))
}

/** Takes the links out of mails sent before that was done at once, and out of those given up before `givenUp`. */
export async function sweepMails(tx: Tx, givenUp: Date): Promise<void> {
  const without = (column: typeof mails.text | typeof mails.html) => sql`regexp_replace(${column}, ${LINK}, '/…')`
  await tx
    .update(mails)
    .set({ text: without(mails.text), html: without(mails.html) })
    .where(and(or(eq(mails.state, 'sent'), and(eq(mails.state, 'failed'), lt(mails.nextAt, givenUp))), sql`${mails.text} regexp ${LINK}`))
}
