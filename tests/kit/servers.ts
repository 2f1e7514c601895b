import { readFileSync } from 'node:fs'
import { startProgram } from './programs'
import type { Running } from './programs'
import { takeFrom } from './takeFrom'

/** Where processes that ran a server before wait for the next: a file for each. None where the tests are not run together. */
const shelf = process.env.EVRIX_TEST_SERVERS

interface Keeper {
  control: string
  pid: number
}

/** A server with these settings, in a process that ran one before where there is any. */
export async function startServer(env: NodeJS.ProcessEnv, folder: string): Promise<Running> {
  if (!shelf) {
    const { addresses, process: child, stop, kill } = await startProgram('dist/server/main.js', env)
    return { url: addresses[0]!, pid: child.pid!, stop, kill }
  }
  const keeper = takeKeeper(folder) ?? (await newKeeper(env))
  const { address } = (await tell(keeper, 'serve', env)) as { address: string }
  let stopped = false
  return {
    url: address,
    pid: keeper.pid,
    stop: async () => {
      if (stopped) return
      stopped = true
      // One that takes too long, or was killed, has ended as well.
      await tell(keeper, 'stop').catch((error: unknown) => {
        if ((error as Error).name !== 'TypeError') throw error
      })
    },
    kill: async () => {
      stopped = true
      process.kill(keeper.pid, 'SIGKILL')
      while (isThere(keeper.pid)) await new Promise((resolve) => setTimeout(resolve, 5))
    },
  }
}

function takeKeeper(folder: string): Keeper | null {
  for (const keeper of takeFrom<Keeper>(shelf, folder)) if (isThere(keeper.pid)) return keeper
  return null
}

async function newKeeper(env: NodeJS.ProcessEnv): Promise<Keeper> {
  const { addresses, process: child } = await startProgram('tests/kit/keeper.mjs', env)
  return { control: addresses[0]!, pid: child.pid! }
}

/** @throws what kept the server from starting or ending */
async function tell({ control }: Keeper, what: 'serve' | 'stop', env?: NodeJS.ProcessEnv): Promise<unknown> {
  const answer = await fetch(`${control}/${what}`, { method: 'POST', body: env ? JSON.stringify(env) : undefined })
  if (!answer.ok) throw new Error(`The server did not ${what}: ${await answer.text()}`)
  return answer.json()
}

function isThere(pid: number): boolean {
  try {
    process.kill(pid, 0)
    // Killed, but not yet taken note of by whoever started it, it answers nothing.
    return !/^State:\s+Z/m.test(readFileSync(`/proc/${pid}/status`, 'utf8'))
  } catch {
    return false
  }
}
