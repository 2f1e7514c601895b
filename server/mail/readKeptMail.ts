import * as contract from '#contract/requests'
import { query } from '#server/kit'
import { bytesOf, keptMail, readWhole } from './keptMail'

/** All of a mail, also of what was folded or did not fit. */
export default query(contract.readKeptMail, async ({ db, who, input }) => {
  const mail = await keptMail(db, who, input.id)
  const read = await readWhole(db, mail)
  return {
    id: mail.id,
    sender: mail.sender,
    subject: read.subject ?? mail.subject,
    receivedAt: mail.receivedAt,
    state: mail.state,
    reason: mail.reason,
    leftOut: mail.leftOut,
    requestId: mail.requestId,
    text: read.text,
    bytes: await bytesOf(db, mail),
    files: read.files.map((file, index) => ({ index, name: file.name, bytes: file.content.length })),
  }
})
