import { keepPreviousData, QueryClient, useQuery } from '@tanstack/vue-query'
import { computed, toValue } from 'vue'
import type { MaybeRefOrGetter } from 'vue'
import type { LiveChange } from '#contract/insight'
import type { Endpoint } from '#contract/kit'
import { call, CallProblem } from './call'
import { AGAIN_MS, problemFrom } from './loading'
import type { Loading } from './loading'

/** What is away for a moment is asked for again until it is back. */
const isAway = (error: unknown) => error instanceof CallProblem && [0, 503].includes(error.problem.status)

/** All that screens have read, by endpoint and input. The live line tells what of it is stale. */
export const reads = /* @__PURE__ */ new QueryClient({
  defaultOptions: {
    queries: {
      networkMode: 'always',
      refetchOnWindowFocus: false,
      refetchOnReconnect: false,
      retry: (_, error) => isAway(error),
      retryDelay: AGAIN_MS,
      gcTime: 60_000,
    },
  },
})

/** Which changes touch an answer; `now` is what was read last. */
export type Touched<Answer> = (change: LiveChange, now: Answer) => boolean

interface ReadOptions<Answer> {
  touchedBy?: Touched<Answer>
  /** Shows what was read for another input until this one is there: what stands beside the work does not blink. */
  holds?: boolean | ((earlier: readonly unknown[]) => boolean)
  /** Never shown from before: what is about to be changed is read anew each time it is opened. */
  anew?: boolean
  /** Read again by itself after so many milliseconds: what it says hangs on the time. */
  every?: number
}

/**
 * Reads an endpoint for as long as the screen is there, and again when a change touches it. An input of null waits.
 *
 * @example const context = useRead(readContext, () => props.about, { holds: true })
 */
export function useRead<Input extends object, Answer>(
  endpoint: Endpoint<Input, Answer>,
  input: MaybeRefOrGetter<Input | null>,
  options: ReadOptions<Answer> = {},
): Loading<Answer> {
  const asked = computed(() => toValue(input))
  return useReadAs(
    () => (asked.value ? [endpoint.path, asked.value] : null),
    () => call(endpoint, asked.value!),
    options,
  )
}

/** The same for what takes several calls: kept under a key that names all it hangs on. */
export function useReadAs<Answer>(
  key: () => readonly unknown[] | null,
  read: () => Promise<Answer>,
  { touchedBy, holds, anew, every }: ReadOptions<Answer> = {},
): Loading<Answer> {
  const asked = computed(key)
  const queryKey = computed(() => asked.value ?? ['nothing'])
  const held =
    typeof holds === 'function'
      ? (before: Answer | undefined, earlier?: { queryKey: readonly unknown[] }) => (earlier && holds(earlier.queryKey) ? before : undefined)
      : keepPreviousData
  const query = useQuery<Answer, Error>(
    {
      queryKey,
      queryFn: read,
      enabled: () => asked.value !== null,
      placeholderData: holds ? (held as never) : undefined,
      gcTime: anew ? 0 : undefined,
      refetchInterval: every ?? false,
      meta: { touchedBy },
      shallow: true,
    },
    reads,
  )
  const failed = computed(() => query.failureReason.value ?? query.error.value)
  let newest: Promise<void> = Promise.resolve()
  /** Reads again; who waits for an older reading waits for the newest. */
  function load(): Promise<void> {
    const mine: Promise<void> = query.refetch().then(() => (mine === newest ? undefined : newest))
    newest = mine
    return mine
  }
  return {
    value: computed({
      get: () => query.data.value ?? null,
      set: (now) => void reads.setQueryData(queryKey.value, now),
    }),
    busy: query.isFetching,
    problem: computed(() => (failed.value ? problemFrom(failed.value) : null)),
    load,
  }
}

/** Changes of one burst, which make stale once. */
const BURST_MS = 16
let heard: (LiveChange | null)[] = []
let soon: ReturnType<typeof setTimeout> | undefined

/** A change was heard; null means that some were missed. What it touches is read again where it is shown. */
export function staleBy(change: LiveChange | null): void {
  heard.push(change)
  clearTimeout(soon)
  soon = setTimeout(() => {
    const changes = heard
    heard = []
    void reads.invalidateQueries({
      predicate: ({ meta, state }) => {
        const touched = meta?.touchedBy as Touched<unknown> | undefined
        return !!touched && state.data !== undefined && changes.some((one) => one === null || touched(one, state.data))
      },
    })
  }, BURST_MS)
}
