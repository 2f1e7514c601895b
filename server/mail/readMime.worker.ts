import { simpleParser } from 'mailparser'
import type { AddressObject } from 'mailparser'

/** What is needed of a mail, taken apart away from the thread that answers requests. */
export interface ReadMail {
  messageId: string | null
  from: { name: string; address: string } | null
  subject: string | undefined
  text: string
  headers: Record<string, string>
  /** The messages it says it answers, the nearest last. */
  references: string[]
  files: { name: string; mime: string; content: Uint8Array }[]
}

const MOST_FILES = 10

/** @throws when it cannot be read as a mail at all */
export default async function readMime(raw: Uint8Array): Promise<ReadMail> {
  const mail = await simpleParser(Buffer.from(raw), { skipImageLinks: true })
  const from = (mail.from as AddressObject | undefined)?.value[0]
  const headers: Record<string, string> = {}
  for (const { key, line } of mail.headerLines) headers[key] ??= line.slice(line.indexOf(':') + 1).trim()
  if (!mail.headerLines.length) throw new Error('There are no headers.')
  const references = typeof mail.references === 'string' ? [mail.references] : (mail.references ?? [])
  return {
    messageId: mail.messageId ?? null,
    from: from?.address ? { name: from.name, address: from.address.toLowerCase() } : null,
    subject: mail.subject,
    text: (mail.text ?? '').replace(/\r\n?/g, '\n').trim(),
    headers,
    references: [...references, ...(mail.inReplyTo ? [mail.inReplyTo] : [])],
    files: mail.attachments
      .slice(0, MOST_FILES)
      .map((file, index) => ({ name: file.filename ?? `part-${index + 1}`, mime: file.contentType, content: new Uint8Array(file.content) })),
  }
}
