import * as contract from '#contract/requests'
import { command } from '#server/kit'
import { keepFile } from './keepFile'
import { requestByLink } from './tracked'

export default command(contract.uploadTrackedFile, async ({ tx, input, request, now }) => {
  const { site } = await requestByLink(tx, input.token, now)
  return keepFile(tx, site.id, request.file, input.name, now)
})
