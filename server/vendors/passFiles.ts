import { and, eq, inArray, isNull } from 'drizzle-orm'
import { XMLParser } from 'fast-xml-parser'
import * as contract from '#contract/vendors'
import { refuseAdditions } from '#core/field'
import { refuse } from '#core/kit'
import { hears } from '#core/talk'
import { billFromUbl } from '#core/vendors'
import type { XmlNode } from '#core/vendors'
import { delivery, keepAttachment, notFound, preparedCommand, randomToken, readFileSent, sha256 } from '#server/kit'
import type { Reader } from '#server/kit'
import { sendFile } from '#server/orders'
import { attachments, findingPhotos, findings, orderMessages, orderSteps } from '../tables'
import { openPass } from './openPass'
import { preparedPassCommand } from './passCommand'

export const addPassFile = preparedPassCommand(
  contract.addPassFile,
  ({ request, input }) => readFileSent(request.file, input.name),
  async ({ tx, visit, order, vendor, at, ready, tell }) => {
    refuseAdditions(order.state)
    await keepAttachment(tx, { siteId: order.siteId, orderId: order.id, visitId: visit.id, vendorId: vendor.id, ...ready, at })
    await tell({ kind: 'vendor.file', siteId: order.siteId, orderId: order.id, visitId: visit.id, details: { name: ready.name } })
  },
)

export const readPassFile = delivery(contract.readPassFile, async ({ db, input, now, response }) => {
  const { visit, order } = await openPass(db, input.token, now)
  const [file] = await db.select().from(attachments).where(eq(attachments.id, input.fileId))
  if (!file || !(await isShown(db, file, visit.id, order.id))) throw notFound('file')
  await sendFile(db, response, file, input.small)
})

/** What the pass shows: what they sent themselves, what was said to them, and photos of what they are to put right. */
async function isShown(db: Reader, file: typeof attachments.$inferSelect, visitId: number, orderId: number): Promise<boolean> {
  if (file.messageId !== null) {
    const [said] = await db
      .select()
      .from(orderMessages)
      .where(and(eq(orderMessages.id, file.messageId), eq(orderMessages.orderId, orderId)))
    return !!said && hears({ is: 'vendor', visitId }, said)
  }
  if (file.visitId === visitId) return true
  const [toPutRight] = await db
    .select({ id: findings.id })
    .from(findingPhotos)
    .innerJoin(findings, eq(findings.id, findingPhotos.findingId))
    .where(and(eq(findingPhotos.attachmentId, file.id), eq(findings.followUpOrderId, orderId)))
  if (toPutRight) return true
  const [ofStep] = await db
    .select({ id: orderSteps.id })
    .from(orderSteps)
    .where(and(eq(orderSteps.photoId, file.id), eq(orderSteps.orderId, orderId)))
  return !!ofStep
}

const XML = new XMLParser({
  removeNSPrefix: true,
  ignoreAttributes: true,
  parseTagValue: false,
  isArray: () => true,
})
const isXml = (content: Buffer) => /^\uFEFF?\s*<[?!\w]/.test(content.subarray(0, 200).toString('utf8'))

export const readBillFile = preparedCommand(
  contract.readBillFile,
  async ({ request, input }) => {
    const sent = await readFileSent(request.file, input.name)
    return { sent, tree: sent.kind === 'document' && isXml(sent.content) ? treeOf(sent.content) : null }
  },
  async ({ tx, input, now, ready: { sent, tree } }) => {
    const { vendor, site, order, visit } = await openPass(tx, input.token, now)
    const isPdf = sent.mime === 'application/pdf'
    if (!tree && !isPdf) refuse('bill_kind', 'Send the bill as an electronic invoice (UBL, an XML file) or as a PDF.', 'file')
    const read = tree && billFromUbl(tree, site.currency)
    if (read && 'problem' in read) refuse('bill_unread', read.problem, 'file')
    const claim = randomToken()
    await keepAttachment(tx, { siteId: order.siteId, vendorId: vendor.id, visitId: visit.id, claimHash: sha256(claim), ...sent, at: now })
    return { claim, name: sent.name, read }
  },
  async ({ db, input, now }) => void (await openPass(db, input.token, now)),
)

function treeOf(content: Buffer): XmlNode {
  const text = content.toString('utf8').replace(/^\uFEFF/, '')
  // An invoice defines nothing by itself; what does is not followed.
  if (/<!DOCTYPE/i.test(text)) refuse('bill_unread', 'The file defines words of its own, which an invoice does not. Enter the bill line by line.', 'file')
  try {
    return XML.parse(text) as XmlNode
  } catch {
    refuse('bill_unread', 'The file is not whole: it cannot be read. Send it again, or enter the bill line by line.', 'file')
  }
}

/** The file that was sent ahead for a bill of this visit. @throws Refusal at `fileClaim` when it is not there any more */
export async function claimedBill(db: Reader, visitId: number, claim: string): Promise<number> {
  const [file] = await db
    .select({ id: attachments.id })
    .from(attachments)
    .where(and(inArray(attachments.claimHash, [sha256(claim)]), eq(attachments.visitId, visitId), isNull(attachments.orderId)))
  if (!file) refuse('file_gone', 'The file is not here any more. Choose it again.', 'fileClaim')
  return file.id
}
