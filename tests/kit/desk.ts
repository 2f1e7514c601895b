import { createTransport } from 'nodemailer'
import type { SendMailOptions } from 'nodemailer'
import type { House } from './house'

/** Where people write to the desk of the first site. */
export const DESK = 'desk-ske@skerry.example'

export interface Incoming {
  id: number
  state: string
  reason: string | null
  request_id: number | null
}

/** Mail to the desk of a house, sent as anybody outside does, and what became of it. */
export function deskMail(house: () => House) {
  const transport = () => createTransport({ host: '127.0.0.1', port: house().inboundPort, ignoreTLS: true })
  return {
    transport,
    send: (mail: SendMailOptions) => transport().sendMail({ from: 'aoife@reporter.example', to: DESK, ...mail }),
    /** A message exactly as written, with the envelope of its own. */
    sendRaw: (raw: string | Buffer, from = 'aoife@reporter.example', to = DESK) =>
      transport().sendMail({ envelope: { from, to: [to] }, raw: typeof raw === 'string' ? raw.replace(/\r?\n/g, '\r\n') : raw }),
    /** What became of the last mail sent by this. */
    async outcome(sending: () => Promise<unknown>): Promise<Incoming> {
      const before = await lastId(house())
      await sending()
      for (let n = 0; n < 300; n++) {
        const [row] = await house().rows<Incoming>(
          "SELECT id, state, reason, request_id FROM incoming_mail WHERE id > ? AND state <> 'waiting' ORDER BY id DESC LIMIT 1",
          [before],
        )
        if (row) return row
        await new Promise((resolve) => setTimeout(resolve, 100))
      }
      throw new Error('Nothing became of the mail.')
    },
  }
}

export const lastId = async (house: House) => (await house.rows<{ id: number }>('SELECT COALESCE(MAX(id), 0) AS id FROM incoming_mail'))[0]!.id
