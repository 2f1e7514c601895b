import * as contract from '#contract/requests'
import { delivery, notFound, plainFileName } from '#server/kit'
import { sendDownload } from '#server/orders'
import { keptMail, readWhole } from './keptMail'

export default delivery(contract.readKeptMailFile, async ({ db, who, input, response }) => {
  const file = (await readWhole(db, await keptMail(db, who, input.id))).files[input.index]
  if (!file) throw notFound('file')
  sendDownload(response, plainFileName(file.name))
  response.end(Buffer.from(file.content))
})
