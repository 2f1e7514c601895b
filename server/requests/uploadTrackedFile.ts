import * as contract from '#contract/requests'
import { preparedCommand, readFileSent } from '#server/kit'
import { keepFile } from './keepFile'
import { requestByLink } from './tracked'

export default preparedCommand(
  contract.uploadTrackedFile,
  ({ request, input }) => readFileSent(request.file, input.name),
  async ({ tx, input, ready, now }) => {
    const { site } = await requestByLink(tx, input.token, now)
    return keepFile(tx, site.id, ready, now)
  },
  ({ db, input, now }) => requestByLink(db, input.token, now),
)
