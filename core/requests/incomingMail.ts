/** What the rules need to know of a mail that came in. Header names in small letters. */
export interface MailFacts {
  /** The return path: empty for bounces. */
  sender: string
  headers: Record<string, string>
  /** Our own addresses: what they send never comes back in. */
  own: string[]
}

/**
 * Why a mail is left alone, or null when a person wrote it. Automatic mail never becomes a request
 * and is never answered (RFC 3834 section 2; null return path: RFC 5321 section 4.5.5).
 */
export function whyIgnored({ sender, headers, own }: MailFacts): string | null {
  if (!sender) return 'It is a bounce: its return path is empty.'
  const automatic = (headers['auto-submitted'] ?? 'no').trim().toLowerCase()
  if (!/^no\b/.test(automatic)) return `It was sent by a program (Auto-Submitted: ${automatic.slice(0, 40)}).`
  const precedence = (headers.precedence ?? '').trim().toLowerCase()
  if (['bulk', 'junk', 'list', 'auto_reply'].includes(precedence)) return `It is mass mail or an automatic reply (Precedence: ${precedence}).`
  if (headers['list-id'] !== undefined || headers['list-unsubscribe'] !== undefined) return 'It came from a mailing list.'
  if (/^(mailer-daemon|postmaster)@/i.test(sender)) return 'It is a report of a mail server.'
  if (/multipart\/report/i.test(headers['content-type'] ?? '')) return 'It is a delivery report.'
  if (own.some((address) => address.toLowerCase() === sender.toLowerCase())) return 'It came from our own address.'
  return null
}

const REPLY_MARK = /^\s*((re|fw|fwd|aw|wg|sv|vs|antw|rv|tr)\s*(\[\d+\])?\s*:\s*)+/i
export const LONGEST_SUMMARY = 140

/** The one-line summary of a mailed request: its subject without reply marks, else the first words of the text. */
export function summaryOfMail(subject: string | undefined, text: string): string {
  const fromSubject = (subject ?? '').replace(REPLY_MARK, '').replace(/\s+/g, ' ').trim()
  const first =
    text
      .split('\n')
      .map((line) => line.trim())
      .find(Boolean) ?? ''
  const summary = /[\p{L}\p{N}]/u.test(fromSubject) ? fromSubject : first || 'Mail without a subject'
  return summary.length > LONGEST_SUMMARY ? `${summary.slice(0, LONGEST_SUMMARY - 1).trimEnd()}…` : summary
}

/** The one line and the description of a mailed request; what did not fit is said, and the desk opens all of it. */
export function fitMail(subject: string | undefined, text: string): { summary: string; description: string; leftOut: string | null } {
  const summary = summaryOfMail(subject, text)
  const whole = (subject ?? '').replace(/\s+/g, ' ').trim()
  // A subject that was cut goes on in the description.
  const written = [summary.endsWith('…') && whole.length > LONGEST_SUMMARY ? whole : '', text].filter(Boolean).join('\n\n') || whole || '(no words)'
  if (written.length <= LONGEST_DESCRIPTION) return { summary, description: written, leftOut: null }
  const cut = written.slice(0, LONGEST_DESCRIPTION - 1).replace(/[\uD800-\uDBFF]$/, '')
  return { summary, description: `${cut}…`, leftOut: `Its text has ${written.length} signs; the description holds the first ${LONGEST_DESCRIPTION}.` }
}
export const LONGEST_DESCRIPTION = 4_000

/**
 * Where the quoted mail begins in a reply, in the words of common mail programs (common practice, no source).
 *
 * A kept library (`email-reply-parser` 2.3.9) was put beside these marks on the 30 cases of `replies.test.ts`: it cuts
 * 22 of them as they should be, these marks 30. It knows more languages, whose words were taken over, but no
 * headers without an address, and takes off signatures, in which an extension or a room may stand.
 */
const QUOTE_STARTS = [
  /^\s*On .{6,200}wrote:\s*$/i,
  /^\s*Am .{6,200}schrieb.*:\s*$/i,
  /^\s*Le .{6,200}a écrit\s*:\s*$/i,
  /^\s*El .{6,200}escribió\s*:\s*$/i,
  /^\s*Il .{6,200}ha scritto\s*:\s*$/i,
  /^\s*Op .{6,200}(schreef|geschreven).*:\s*$/i,
  /^\s*W dniu .{6,200}napisał(\(a\)|a)?\s*:\s*$/i,
  /^\s*Den .{6,200}(skrev|skrev följande).*:\s*$/i,
  /^\s*-{2,}\s*(Original Message|Forwarded message|Ursprüngliche Nachricht|Weitergeleitete Nachricht|Message d.origine)\s*-{2,}\s*$/i,
]
/** The first line of a block of headers, and those that follow it, in three languages (common practice, no source). */
const BLOCK_FIRST = /^\s*\*?(From|Von|De)\s*:\*?\s*\S/i
const BLOCK_NEXT = /^\s*\*?(Sent|Date|To|Cc|Subject|Gesendet|Datum|An|Betreff|Envoyé|À|Objet)\s*:\*?/i

/** A block of headers as some mail programs put it above what they repeat. One line alone is the writer's own. */
function beginsHeaders(lines: string[], index: number): boolean {
  const first = /^\s*_{10,}\s*$/.test(lines[index]!) ? index + 1 : index
  if (!BLOCK_FIRST.test(lines[first] ?? '')) return false
  const next = lines.slice(first + 1).filter((line) => line.trim())
  return BLOCK_NEXT.test(next[0] ?? '') && BLOCK_NEXT.test(next[1] ?? '')
}

/** A reply as it was written, and what it repeats, to be folded away. Nothing is lost between the two. */
export function splitQuoted(text: string): { text: string; quoted: string | null } {
  const lines = text.replace(/\r\n?/g, '\n').split('\n')
  let from = lines.findIndex((line, index) => QUOTE_STARTS.some((start) => start.test(line)) || beginsAcrossLines(lines, index) || beginsHeaders(lines, index))
  if (from === -1) {
    // Quoted lines at the end, with nothing of the writer's after them.
    from = lines.length
    while (from > 0 && (/^\s*>/.test(lines[from - 1]!) || !lines[from - 1]!.trim())) from--
    if (!lines.slice(from).some((line) => /^\s*>/.test(line))) from = -1
  }
  const written = from === -1 ? lines : lines.slice(0, from)
  const quoted = from === -1 ? '' : lines.slice(from).join('\n').trim()
  // A reply written only between the quoted lines keeps all of it: taking it apart would lose the sense.
  if (!written.join('').trim()) return { text: text.trim(), quoted: null }
  return { text: written.join('\n').trim(), quoted: quoted || null }
}

/** "On Monday, 23 November 2026, Maren Quill <desk@…>" with "wrote:" on the next line. */
const beginsAcrossLines = (lines: string[], index: number) =>
  /^\s*On .{6,200}$/i.test(lines[index]!) && !/wrote:/.test(lines[index]!) && /^(?!\s*>).{0,160}wrote:\s*$/i.test(lines[index + 1] ?? '')

/** Whose thread an address leads to: a request's own (r), or that of somebody who follows one (f). */
export interface ReplyTag {
  kind: 'r' | 'f'
  id: number
  signature: string
}

/** What is signed of a tag. */
export const replySecret = ({ kind, id }: Pick<ReplyTag, 'kind' | 'id'>) => (kind === 'r' ? `reply:${id}` : `follower:${id}`)

/** The address a reply comes back to: "desk-ske+r24018.4f9a…@place.example". */
export function taggedAddress(mailbox: string, { kind, id, signature }: ReplyTag): string {
  const at = mailbox.lastIndexOf('@')
  return `${mailbox.slice(0, at)}+${kind}${id}.${signature}${mailbox.slice(at)}`
}

/** The mailbox of an address with its tag taken off, and the tag when there is one. */
export function readTag(address: string): { mailbox: string; tag: ReplyTag | null } {
  const found = /^([^+@]+)\+([rf])(\d{1,9})\.([A-Za-z0-9_-]{8,64})@(.+)$/.exec(address)
  if (!found) return { mailbox: address.toLowerCase(), tag: null }
  return { mailbox: `${found[1]}@${found[5]}`.toLowerCase(), tag: { kind: found[2] as ReplyTag['kind'], id: Number(found[3]), signature: found[4]! } }
}
