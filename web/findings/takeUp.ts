import { takeUpFinding } from '#contract/findings'
import { call, CallProblem, useUndo } from '#web/kit'

/** Has a finding wait again, and says so; a refusal is said the same way. */
export async function takeUp({ id }: { id: number }, changed: () => void): Promise<void> {
  const said = useUndo()
  try {
    await call(takeUpFinding, { id })
    said.say('It waits for an order again.')
  } catch (error) {
    if (!(error instanceof CallProblem)) throw error
    said.say(error.reasons[0]?.sentence ?? error.message, undefined, true)
  }
  changed()
}
