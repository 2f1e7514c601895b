import * as contract from '#contract/requests'
import { preparedCommand, readFileSent } from '#server/kit'
import { keepFile } from './keepFile'
import { siteByCode } from './siteByCode'

export default preparedCommand(
  contract.uploadCounterFile,
  ({ request, input }) => readFileSent(request.file, input.name),
  async ({ tx, input, ready, now }) => {
    const site = await siteByCode(tx, input.site)
    return keepFile(tx, site.id, ready, now)
  },
  ({ db, input }) => siteByCode(db, input.site),
)
