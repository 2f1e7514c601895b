import { CallProblem, useUndo } from '#web/kit'

/** Says why a move of a Sheet was refused. @throws what is no refusal */
export function sayRefusal(error: unknown): void {
  if (!(error instanceof CallProblem)) throw error
  useUndo().say(
    error.problem.status === 409
      ? 'Somebody else changed it meanwhile; here is what it says now. Look again, then press once more.'
      : (error.reasons[0]?.sentence ?? error.message),
    undefined,
    true,
  )
}
