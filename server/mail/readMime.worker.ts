import { simpleParser } from 'mailparser'

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

/** Larger than any header or structure a person’s mail has; what goes beyond is read as plain text. */
const LIMITS = { maxHeadSize: 32 * 1024 * 1024, maxChildNodes: 5_000 }
const MOST_PLAIN = 200_000

/** @throws when it cannot be read as a mail at all */
export default async function readMime(raw: Uint8Array): Promise<ReadMail> {
  const mail = await simpleParser(Buffer.from(raw), { skipImageLinks: true, ...LIMITS })
  const from = mail.from?.value[0]
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
    files: mail.attachments.map((file, index) => ({
      name: file.filename ?? `part-${index + 1}`,
      mime: file.contentType,
      content: new Uint8Array(file.content),
    })),
  }
}

/** A message no parser takes, as the plain text it is: somebody at the desk can still read it and make a request of it. */
export function readPlainly(raw: Uint8Array): ReadMail {
  const text = Buffer.from(raw.subarray(0, MOST_PLAIN)).toString('utf8').replace(/\r\n?/g, '\n')
  const [head = '', ...body] = text.split('\n\n')
  const header = (name: string) => new RegExp(`^${name}:[ \\t]*(.*)$`, 'im').exec(head)?.[1]?.trim()
  const address = /[^\s<>"]+@[^\s<>"]+/.exec(header('from') ?? '')?.[0]
  return {
    messageId: null,
    from: address ? { name: '', address: address.toLowerCase() } : null,
    subject: header('subject'),
    text: (body.join('\n\n') || text).trim(),
    headers: {},
    references: [],
    files: [],
  }
}
