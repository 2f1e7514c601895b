import { appendFileSync, existsSync, readFileSync } from 'node:fs'
import path from 'node:path'

export interface ReceivedMail {
  id: number
  at: string
  from: string
  to: string[]
  subject: string
  text: string
  messageId: string | null
  references: string[]
  replyTo: string | null
  files: { name: string; bytes: number }[]
}

/** Received mails, kept one JSON line each so that a restart loses none. */
export class Mailbox {
  private readonly file: string
  private readonly mails: ReceivedMail[] = []

  constructor(folder: string) {
    this.file = path.join(folder, 'received-mail.jsonl')
    if (existsSync(this.file))
      for (const line of readFileSync(this.file, 'utf8').split('\n')) if (line) this.mails.push(withDefaults(JSON.parse(line) as ReceivedMail))
  }

  keep(mail: Omit<ReceivedMail, 'id'>): void {
    const kept = { id: this.mails.length + 1, ...mail }
    this.mails.push(kept)
    appendFileSync(this.file, `${JSON.stringify(kept)}\n`)
  }

  find(id: number): ReceivedMail | undefined {
    return this.mails.find((mail) => mail.id === id)
  }

  /** Newest first; of one person when an address is given. */
  list(address?: string): ReceivedMail[] {
    const wanted = address?.toLowerCase()
    return this.mails.filter((mail) => !wanted || mail.to.includes(wanted)).reverse()
  }

  /** Everybody who received something, with how much. */
  people(): { address: string; count: number }[] {
    const counts = new Map<string, number>()
    for (const mail of this.mails) for (const to of mail.to) counts.set(to, (counts.get(to) ?? 0) + 1)
    return [...counts].map(([address, count]) => ({ address, count })).sort((a, b) => a.address.localeCompare(b.address))
  }
}

/** Mails kept before they could be answered lack what an answer needs. */
const withDefaults = (mail: ReceivedMail): ReceivedMail => ({
  ...mail,
  messageId: mail.messageId ?? null,
  references: mail.references ?? [],
  replyTo: mail.replyTo ?? null,
  files: mail.files ?? [],
})
