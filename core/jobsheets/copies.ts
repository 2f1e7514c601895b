/** Whom a printed job sheet is for: who does the work, the desk, who pays. */
export const COPIES = ['worker', 'desk', 'payer'] as const
export type Copy = (typeof COPIES)[number]
export const COPY_NAMES: Record<Copy, string> = { worker: 'Job sheet', desk: 'Desk copy', payer: 'Payer’s copy' }

interface Whole {
  /** Everything that is an amount, in one place. */
  money: unknown
  noteForPayer: string | null
  noteForWorker: string | null
  steps: readonly unknown[]
  earlier: readonly unknown[]
  access: readonly string[]
  contact: string | null
}

/**
 * What of a job stands on a copy: amounts on that of the desk alone; who pays reads the note meant for them instead, and
 * nothing of how to get in, of notes for the crew or of earlier jobs. Common practice, no source.
 */
export function copyOf<Sheet extends Whole>(copy: Copy, whole: Sheet): Omit<Sheet, 'money'> & { money: Sheet['money'] | null } {
  if (copy === 'desk') return whole
  if (copy === 'worker') return { ...whole, money: null, noteForPayer: null }
  return { ...whole, money: null, noteForWorker: null, steps: [], earlier: [], access: [], contact: null }
}
