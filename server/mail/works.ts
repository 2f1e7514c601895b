import type { Work, Works } from '#server/kit'
import { MailReader } from './mailReader'
import { Mailroom } from './mailroom'
import { Postman } from './postman'

/** Mail goes out where there is a server for it, and comes in where something listens. */
export const mailWorks: Works = (service) => {
  const { smtpUrl, inboundPort } = service.config
  const out: Work[] = smtpUrl ? [new Postman(service, smtpUrl)] : []
  if (inboundPort === null) return out
  const reader = new MailReader(service)
  const room = new Mailroom(service, reader)
  return [...out, reader, { start: async () => void (await room.listen(inboundPort)), stop: () => room.stop() }]
}
