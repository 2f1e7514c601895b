import { getCurrentScope, onScopeDispose, ref, shallowRef } from 'vue'
import type { Ref } from 'vue'
import { CallProblem } from './call'
import type { Problem } from '#contract/kit'

/** How long until something that could not be reached is asked for again. */
export const AGAIN_MS = 3_000

/** Something read from the server: what is there, whether it is on its way, what went wrong. */
export interface Loading<T> {
  value: Ref<T | null>
  busy: Readonly<Ref<boolean>>
  problem: Readonly<Ref<Problem | null>>
  load: () => Promise<void>
}

/** Reads with the given function; a newer read always wins over one still on its way, and who waits for either waits for it. */
export function useLoading<T>(read: () => Promise<T>): Loading<T> {
  const value = shallowRef<T | null>(null)
  const busy = ref(false)
  const problem = ref<Problem | null>(null)
  let round = 0
  let again: ReturnType<typeof setTimeout> | undefined
  let left = false
  if (getCurrentScope())
    onScopeDispose(() => {
      left = true
      clearTimeout(again)
    })
  let newest: Promise<void> = Promise.resolve()
  const load = () => (newest = readOnce(++round))
  async function readOnce(mine: number): Promise<void> {
    busy.value = true
    clearTimeout(again)
    try {
      const found = await read()
      if (mine !== round) return await newest
      value.value = found
      problem.value = null
    } catch (error) {
      if (mine !== round) return await newest
      problem.value = problemFrom(error)
      // What is away for a moment is asked for again until it is back.
      if (!left && (problem.value.status === 503 || problem.value.status === 0)) again = setTimeout(() => void load(), AGAIN_MS)
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
