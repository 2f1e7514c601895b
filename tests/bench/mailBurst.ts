import { createTransport } from 'nodemailer'
import type { House } from '../kit'
import type { Measure } from './table'

const MAILS = 2_000
const REPLIES = 400
const DOUBLES = 100
const PATIENCE_MS = 240_000

/** Two thousand mails in one burst by real SMTP: new ones, answers to them, and some delivered twice. */
export async function measureMailBurst(house: House): Promise<Measure[]> {
  const transport = createTransport({ host: '127.0.0.1', port: house.inboundPort, ignoreTLS: true, pool: true, maxConnections: 8, maxMessages: Infinity })
  const mail = (n: number) => ({
    from: `Sender ${n} <sender-${n}@many.example>`,
    to: 'desk-ske@skerry.example',
    subject: `Flood ${n}`,
    text: `Something is wrong, number ${n}.`,
    messageId: `<flood-${n}@many.example>`,
  })
  const fresh = MAILS - REPLIES - DOUBLES
  const began = performance.now()
  const all = [
    ...Array.from({ length: fresh }, (_, n) => mail(n)),
    ...Array.from({ length: DOUBLES }, (_, n) => mail(n)),
    // An answer follows the mail it answers, as its writer had to see that one first.
    ...Array.from({ length: REPLIES }, (_, n) => ({
      ...mail(n),
      subject: `Re: Flood ${n}`,
      text: `And more of it.\n\nOn Monday Sender ${n} wrote:\n> Something is wrong`,
      messageId: `<flood-again-${n}@many.example>`,
      inReplyTo: `<flood-${n}@many.example>`,
      references: `<flood-${n}@many.example>`,
    })),
  ]
  await Promise.all(all.map((one) => transport.sendMail(one)))
  transport.close()
  const taken = (performance.now() - began) / 1000
  let waiting = 1
  while (waiting && performance.now() - began < PATIENCE_MS) {
    await new Promise((resolve) => setTimeout(resolve, 500))
    waiting = (await house.rows<{ n: number }>("SELECT COUNT(*) AS n FROM incoming_mail WHERE state = 'waiting'"))[0]!.n
  }
  const took = (performance.now() - began) / 1000
  const [made] = await house.rows<{ n: number; different: number }>(
    "SELECT COUNT(*) AS n, COUNT(DISTINCT summary) AS different FROM request WHERE summary LIKE 'Flood %'",
  )
  const [joined] = await house.rows<{ n: number }>("SELECT COUNT(*) AS n FROM comment c JOIN request r ON r.id = c.request_id WHERE r.summary LIKE 'Flood %'")
  return [
    {
      what: `${MAILS} mails in one burst, ${REPLIES} of them answers, ${DOUBLES} delivered twice`,
      measured: `${made!.n} requests, ${made!.n - made!.different} doubled, ${joined!.n} joined; taken in ${taken.toFixed(0)} s, read in ${took.toFixed(0)} s`,
      limit: 'every one a request or joined, none doubled',
      kept: made!.n === fresh && made!.different === fresh && joined!.n === REPLIES && waiting === 0,
    },
  ]
}
