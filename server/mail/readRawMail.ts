import { pipeline } from 'node:stream/promises'
import { Readable } from 'node:stream'
import * as contract from '#contract/requests'
import { delivery, storedPiecesOf } from '#server/kit'
import { sendDownload } from '#server/orders'
import { keptMail } from './keptMail'

/** The message exactly as it came. */
export default delivery(contract.readRawMail, async ({ db, who, input, response }) => {
  const mail = await keptMail(db, who, input.id)
  sendDownload(response, `mail-${mail.id}.eml`)
  if (mail.fileId) await pipeline(Readable.from(storedPiecesOf(db, mail.fileId)), response)
  else response.end(mail.raw)
})
