/** One thing that stands in the way, said so that the person can act on it. */
export interface Reason {
  code: string
  sentence: string
  /** The field the sentence belongs to, when there is one. */
  field?: string
  /** A record that has to do with it, to be opened from the sentence. */
  record?: { register: string; id: number }
}

/**
 * A rule said no. Carries every reason at once, so that a person mends all of them in one go.
 *
 * @example throw new Refusal([{ code: 'payer_missing', sentence: 'Choose who pays.', field: 'shares' }])
 */
export class Refusal extends Error {
  constructor(readonly reasons: Reason[]) {
    super(reasons.map((reason) => reason.sentence).join(' '))
    this.name = 'Refusal'
  }
}

/** Throws a Refusal with a single reason. */
export function refuse(code: string, sentence: string, field?: string): never {
  throw new Refusal([{ code, sentence, field }])
}
