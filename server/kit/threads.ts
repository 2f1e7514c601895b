import path from 'node:path'
import { fileURLToPath } from 'node:url'
import { Piscina } from 'piscina'
import { logger } from './logger'

/** All that have been started. */
const running = new Set<Piscina>()

/**
 * Work too heavy for the thread that answers: done by a worker of its own, which starts when it is
 * first needed and ends when nobody has asked for a while; one that `stays` keeps what it has learned
 * and takes up the next task while another waits; `idleMs` is how long that is for the others. `mostHeapMb` keeps what it may heap up, garbage too, within
 * bounds. `worker` is its file among the built programs.
 */
export function inThread<Input, Answer>(
  worker: string,
  { stays = false, mostHeapMb, idleMs = 10_000 }: { stays?: boolean; mostHeapMb?: number; idleMs?: number } = {},
): (input: Input, handOver?: Transferable[]) => Promise<Answer> {
  let threads: Piscina | null = null
  return (input, handOver) => {
    if (threads && !running.has(threads)) threads = null
    threads ??= watched(
      new Piscina({
        filename: path.join(path.dirname(fileURLToPath(import.meta.url)), `${worker}.js`),
        minThreads: stays ? 1 : 0,
        maxThreads: 1,
        ...(mostHeapMb ? { resourceLimits: { maxOldGenerationSizeMb: mostHeapMb, maxYoungGenerationSizeMb: 8 } } : {}),
        ...(stays ? { concurrentTasksPerWorker: 32, atomics: 'disabled' as const } : { idleTimeout: idleMs }),
      }),
    )
    return threads.run(input, { transferList: handOver as never }) as Promise<Answer>
  }
}

/** Ends all workers, and what they know; whoever asks again is answered by new ones. */
export async function endThreads(): Promise<void> {
  const all = [...running]
  running.clear()
  await Promise.all(all.map((threads) => threads.destroy()))
}

/** A worker that ends by itself fails what it was asked; it does not take the server with it. */
function watched(threads: Piscina): Piscina {
  running.add(threads)
  threads.on('error', (error) => logger.error({ error }, 'A worker ended'))
  return threads
}
