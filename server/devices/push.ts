import { createECDH } from 'node:crypto'
import { and, eq } from 'drizzle-orm'
import * as contract from '#contract/devices'
import { refuse } from '#core/kit'
import { command, query, sha256 } from '#server/kit'
import type { LinkMaker, Service } from '#server/kit'
import { devices, pushSubscriptions } from '../tables'

/** The pair of keys by which browsers recognize us (VAPID, RFC 8292): made of the installation’s secret, so that every server has the same. Base64url. */
export function vapidOf(links: LinkMaker): { publicKey: string; privateKey: string } {
  const curve = createECDH('prime256v1')
  curve.setPrivateKey(links.key('push'))
  return { publicKey: curve.getPublicKey('base64url'), privateKey: curve.getPrivateKey('base64url') }
}

/** Nobody has us call anywhere they like: only push services this installation names. */
const mayPushTo = ({ config }: Pick<Service, 'config'>, endpoint: string): boolean =>
  URL.canParse(endpoint) && config.pushOrigins.includes(new URL(endpoint).origin)

export const readPushKey = query(contract.readPushKey, ({ service }) =>
  Promise.resolve({ key: service.config.pushOrigins.length ? vapidOf(service.links).publicKey : null }),
)

export const keepPush = command(contract.keepPush, async ({ tx, who, input, now, service }) => {
  const { endpoint, p256dh, auth, ident } = input
  if (!mayPushTo(service, endpoint)) refuse('push_elsewhere', 'This browser is told through a service we do not send to. You are told by mail.', 'endpoint')
  const [device] = ident
    ? await tx
        .select({ id: devices.id })
        .from(devices)
        .where(and(eq(devices.accountId, who.accountId!), eq(devices.ident, ident)))
    : []
  const keys = { accountId: who.accountId!, deviceId: device?.id ?? null, p256dh, auth }
  // A browser is told for whoever signed in on it last.
  await tx
    .insert(pushSubscriptions)
    .values({ ...keys, endpoint, endpointHash: sha256(endpoint), at: now })
    .onDuplicateKeyUpdate({ set: keys })
  return { kept: true as const }
})

export const dropPush = command(contract.dropPush, async ({ tx, who, input }) => {
  await tx.delete(pushSubscriptions).where(and(eq(pushSubscriptions.endpointHash, sha256(input.endpoint)), eq(pushSubscriptions.accountId, who.accountId!)))
  return { kept: false as const }
})
