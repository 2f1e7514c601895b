import { ref, shallowRef } from 'vue'
import type { Ref, ShallowRef } from 'vue'
import { CallProblem } from './call'
import type { Problem } from '#contract/kit'

/** Something read from the server: what is there, whether it is on its way, what went wrong. */
export interface Loading<T> {
  value: ShallowRef<T | null>
  busy: Ref<boolean>
  problem: Ref<Problem | null>
  load: () => Promise<void>
}

/** Reads with the given function; a newer read always wins over one still on its way, and who waits for either waits for it. */
export function useLoading<T>(read: () => Promise<T>): Loading<T> {
  const value = shallowRef<T | null>(null)
  const busy = ref(false)
  const problem = ref<Problem | null>(null)
  let round = 0
  let newest: Promise<void> = Promise.resolve()
  const load = () => (newest = readOnce(++round))
  async function readOnce(mine: number): Promise<void> {
    busy.value = true
    try {
      const found = await read()
      if (mine !== round) return await newest
      value.value = found
      problem.value = null
    } catch (error) {
      if (mine !== round) return await newest
      problem.value = problemFrom(error)
    } finally {
      if (mine === round) busy.value = false
    }
  }
  return { value, busy, problem, load }
}

/** Any failure as a problem to show. */
export function problemFrom(error: unknown): Problem {
  if (error instanceof CallProblem) return error.problem
  return {
    type: 'about:blank',
    title: 'This screen failed',
    status: 0,
    detail: 'Something went wrong on this screen. Nothing you saved is lost; reload the page.',
  }
}
