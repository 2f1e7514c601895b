/**
 * What a stranger can make us send. Our own choice of limits, no source: enough for a person who tries
 * again, too little to flood a mailbox that is not theirs.
 */
export const STRANGER_LIMITS = {
  /** A link to everything sent from an address. */
  mine: { perAddress: 3, perRequest: Infinity },
  /** A link that confirms the address of somebody who follows. */
  confirm: { perAddress: 4, perRequest: 20 },
  /** The acknowledgement of a request: beyond it the request is taken, and nothing is said by mail. */
  received: { perAddress: 12, perRequest: Infinity },
  /** Word that a mail was not taken. */
  not_taken: { perAddress: 2, perRequest: Infinity },
} as const
export type StrangerOccasion = keyof typeof STRANGER_LIMITS

/** Over which time they are counted. */
export const STRANGER_HOURS = 1

/** Whether one more may go out, after so many of this occasion within {@link STRANGER_HOURS} hours. */
export function mayMailStranger(occasion: StrangerOccasion, sent: { toAddress: number; aboutRequest: number }): boolean {
  const { perAddress, perRequest } = STRANGER_LIMITS[occasion]
  return sent.toAddress < perAddress && sent.aboutRequest < perRequest
}
