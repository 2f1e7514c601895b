import { randomBytes } from 'node:crypto'
import { and, desc, eq } from 'drizzle-orm'
import * as contract from '#contract/devices'
import { command, notFound, query, SESSION_COOKIE, sha256 } from '#server/kit'
import type { CommandContext, Reader, Route } from '#server/kit'
import { administers } from '#server/people'
import { bindSession, endSessionsOn } from '#server/people/records'
import { accounts, devices, people, pushSubscriptions } from '../tables'
import { dropPush, keepPush, readPushKey } from './push'

/** The device of a person by the name it calls itself; made when it is new, open again when it was ended: whoever signs in on it has it. */
const keepDevice = command(contract.keepDevice, async ({ tx, who, input, now, request, tell }) => {
  const accountId = who.accountId!
  const { ident, name } = input
  await tx
    .insert(devices)
    .values({ accountId, ident, name, sealKey: randomBytes(32).toString('hex'), createdAt: now, heardAt: now })
    .onDuplicateKeyUpdate({ set: { name, heardAt: now, endedAt: null } })
  const [device] = await tx
    .select()
    .from(devices)
    .where(and(eq(devices.accountId, accountId), eq(devices.ident, ident)))
  await bindSession(tx, sha256((request.cookies as Record<string, string>)[SESSION_COOKIE] ?? ''), device!.id)
  if (device!.createdAt.getTime() === now.getTime()) await tell({ kind: 'device.keep', details: { accountId, device: name, name: who.name } })
  return { key: device!.sealKey }
})

async function devicesOf(db: Reader, accountId: number) {
  const rows = await db
    .select({ id: devices.id, name: devices.name, createdAt: devices.createdAt, heardAt: devices.heardAt, endedAt: devices.endedAt })
    .from(devices)
    .where(eq(devices.accountId, accountId))
    .orderBy(desc(devices.heardAt), desc(devices.id))
  return { rows }
}

/** Signs it out, and has it forget the key of what it keeps as soon as it asks. */
async function end({ tx, now, tell }: CommandContext<unknown>, accountId: number, id: number) {
  const [device] = await tx
    .select({ device: devices, owner: people.name })
    .from(devices)
    .innerJoin(accounts, eq(accounts.id, devices.accountId))
    .innerJoin(people, eq(people.id, accounts.personId))
    .where(and(eq(devices.id, id), eq(devices.accountId, accountId)))
    .for('update')
  if (!device) throw notFound('device')
  await endSessionsOn(tx, id)
  if (!device.device.endedAt) {
    await tx.update(devices).set({ endedAt: now }).where(eq(devices.id, id))
    // Nobody who holds it hears of the jobs either.
    await tx.delete(pushSubscriptions).where(eq(pushSubscriptions.deviceId, id))
    await tell({ kind: 'device.end', details: { accountId, device: device.device.name, name: device.owner } })
  }
  return devicesOf(tx, accountId)
}

const listMyDevices = query(contract.listMyDevices, ({ db, who }) => devicesOf(db, who.accountId!))
const endMyDevice = command(contract.endMyDevice, (context) => end(context, context.who.accountId!, context.input.id))

const listDevices = query(contract.listDevices, async ({ db, who, input }) => {
  if (!(await administers(db, who, input.accountId))) throw notFound('account')
  return devicesOf(db, input.accountId)
})
const endDevice = command(contract.endDevice, async (context) => {
  const { tx, who, input } = context
  if (!(await administers(tx, who, input.accountId))) throw notFound('account')
  return end(context, input.accountId, input.id)
})

/** A device of which nothing is known is not ended: it may be of another installation. */
const readDeviceStanding = query(contract.readDeviceStanding, async ({ db, input }) => {
  const rows = await db.select({ endedAt: devices.endedAt }).from(devices).where(eq(devices.ident, input.ident))
  return { ended: rows.length > 0 && rows.every(({ endedAt }) => endedAt !== null) }
})

export { deviceWorks } from './pusher'
export const routes: Route[] = [keepDevice, listMyDevices, endMyDevice, listDevices, endDevice, readDeviceStanding, readPushKey, keepPush, dropPush]
