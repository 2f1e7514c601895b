import * as contract from '#contract/requests'
import { command } from '#server/kit'
import { keepFile } from './keepFile'
import { siteByCode } from './siteByCode'

export default command(contract.uploadCounterFile, async ({ tx, input, request, now }) => {
  const site = await siteByCode(tx, input.site)
  return keepFile(tx, site.id, request.file, input.name, now)
})
