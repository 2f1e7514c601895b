import { and, eq, gt, inArray, lt } from 'drizzle-orm'
import type { Tx } from '#server/kit'
import { leaves, sessions } from '../tables'

/** The second door of this room: leave that others agree on, or read from a calendar; and sessions on a device. */
export type LeaveRecord = typeof leaves.$inferSelect

interface Away {
  fromAt: Date
  untilAt: Date
  reason: string | null
  /** What it is in a calendar, where it comes from one. */
  uid?: string | null
}

/** Leave that lies over this while. */
export const leaveOver = (tx: Tx, technicianId: number, from: Date, until: Date) =>
  tx
    .select()
    .from(leaves)
    .where(and(eq(leaves.technicianId, technicianId), lt(leaves.fromAt, until), gt(leaves.untilAt, from)))

export async function goAway(tx: Tx, technicianId: number, all: readonly Away[]): Promise<void> {
  if (all.length) await tx.insert(leaves).values(all.map((one) => ({ technicianId, ...one })))
}
export async function moveLeave(tx: Tx, id: number, to: Away): Promise<void> {
  await tx.update(leaves).set(to).where(eq(leaves.id, id))
}
export async function dropLeaves(tx: Tx, ids: readonly number[]): Promise<void> {
  if (ids.length) await tx.delete(leaves).where(inArray(leaves.id, [...ids]))
}

/** Whoever is signed in by this session is so on this device. */
export async function bindSession(tx: Tx, tokenHash: string, deviceId: number): Promise<void> {
  await tx.update(sessions).set({ deviceId }).where(eq(sessions.tokenHash, tokenHash))
}
export async function endSessionsOn(tx: Tx, deviceId: number): Promise<void> {
  await tx.delete(sessions).where(eq(sessions.deviceId, deviceId))
}
