import type { Reason } from '#core/kit'

/** Who reads what is said on an order: the desk and our own people on it; one vendor and both; or whoever reported it, and all of us. */
export const AUDIENCES = ['ours', 'vendor', 'reporter'] as const
export type TalkAudience = (typeof AUDIENCES)[number]

/** Who speaks. */
export const SPEAKERS = ['desk', 'crew', 'vendor', 'reporter'] as const
export type Speaker = (typeof SPEAKERS)[number]

/** What each may say to whom: a vendor is heard by the desk, never by the reporter; our people do not write to vendors. */
const MAY_REACH: Record<Speaker, readonly TalkAudience[]> = {
  desk: AUDIENCES,
  crew: ['ours', 'reporter'],
  vendor: ['vendor'],
  reporter: ['reporter'],
}
export const reachOf = (speaker: Speaker): readonly TalkAudience[] => MAY_REACH[speaker]

/** Whether somebody reads what was said. @param visitId of the vendor it is between, where it is to one */
export function hears(listener: { is: Speaker; visitId: number | null }, said: { audience: TalkAudience; visitId: number | null }): boolean {
  if (listener.is === 'desk') return true
  if (said.audience === 'vendor') return listener.is === 'vendor' && said.visitId === listener.visitId
  if (said.audience === 'reporter') return listener.is !== 'vendor'
  return listener.is === 'crew'
}

/** Why something cannot be said to somebody; empty when it can. @param reached how many addresses of reporters there are */
export function sayReasons(speaker: Speaker, audience: TalkAudience, { reached, over }: { reached: number; over: boolean }): Reason[] {
  if (!reachOf(speaker).includes(audience)) return [{ code: 'not_theirs', sentence: 'Choose whom you write to.', field: 'audience' }]
  if (over) return [{ code: 'order_over', sentence: 'The order is closed: nothing is said on it any more.' }]
  return audience === 'reporter' && reached === 0
    ? [{ code: 'no_address', sentence: 'Whoever reported it left no mail address. Call them, or write to the desk.', field: 'audience' }]
    : []
}
