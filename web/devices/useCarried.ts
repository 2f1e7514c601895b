import { computed, onScopeDispose, ref, shallowRef } from 'vue'
import type { Endpoint, Problem } from '#contract/kit'
import type { RecordedAct } from '#core/field'
import { AGAIN_MS, problemFrom, useSession } from '#web/kit'
import type { Loading } from '#web/kit'
import { useCarrying } from './carrying'

/** How long reading waits for what is still to be sent, so that nothing is shown twice. */
const SENT_FIRST_MS = 2_000

/**
 * Reads an endpoint with what this device keeps: first as it was read before, then as the server has it; without signal,
 * as it was, until there is some. What was recorded and not sent yet is shown in it.
 *
 * @param withActs how acts change what was read; `who` recorded them
 */
export function useCarried<Input extends object, Answer>(
  endpoint: Endpoint<Input, Answer>,
  input: Input,
  withActs: (read: Answer, acts: readonly RecordedAct[], who: string) => Answer = (read) => read,
): Loading<Answer> {
  const carrying = useCarrying()
  const session = useSession()
  const name = carrying.nameOf(endpoint, input)
  const read = shallowRef<Answer | null>(null)
  const busy = ref(false)
  const problem = ref<Problem | null>(null)
  let round = 0
  let again: ReturnType<typeof setTimeout> | undefined
  let left = false
  const stopped = carrying.onKept(name, (value) => (read.value = value as Answer))
  onScopeDispose(() => {
    left = true
    stopped()
    clearTimeout(again)
  })

  async function load(): Promise<void> {
    const mine = ++round
    busy.value = true
    clearTimeout(again)
    if (read.value === null) {
      const kept = await carrying.kept<Answer>(name)
      if (read.value === null && mine === round) read.value = kept
    }
    if (carrying.acts.length) await Promise.race([carrying.flush(), new Promise((resolve) => setTimeout(resolve, SENT_FIRST_MS))])
    try {
      const found = await carrying.fetchKept(endpoint, input)
      if (mine !== round) return
      read.value = found
      problem.value = null
    } catch (error) {
      if (mine !== round) return
      problem.value = problemFrom(error)
      const isAway = problem.value.status === 0 || problem.value.status === 503
      if (isAway && !left) again = setTimeout(() => void load(), AGAIN_MS)
      if (!isAway) read.value = null
    } finally {
      if (mine === round) busy.value = false
    }
  }

  const shown = computed({
    get: () =>
      read.value === null
        ? null
        : withActs(
            read.value,
            carrying.acts.map(({ body }) => body),
            session.self?.name ?? '',
          ),
    set: (now) => (read.value = now),
  })
  return { value: shown, busy, problem, load }
}
