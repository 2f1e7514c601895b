import * as contract from '#contract/requests'
import { command, randomToken, readPicture, sha256 } from '#server/kit'
import { attachments } from '../tables'
import { siteByCode } from './siteByCode'

export default command(contract.uploadCounterPhoto, async ({ tx, input, request, now }) => {
  const site = await siteByCode(tx, input.site)
  const picture = await readPicture(request.file)
  const claim = randomToken()
  await tx.insert(attachments).values({
    siteId: site.id,
    claimHash: sha256(claim),
    name: 'photo.jpg',
    mime: picture.mime,
    width: picture.width,
    height: picture.height,
    bytes: picture.content.length,
    content: picture.content,
    at: now,
  })
  return { claim, width: picture.width, height: picture.height }
})
