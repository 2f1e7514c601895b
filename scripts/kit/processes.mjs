import { spawn } from 'node:child_process'
import { readFileSync } from 'node:fs'
import path from 'node:path'
import { root } from './tools.mjs'

/** Starts one of the built programs and waits for its line "listening …". It ends by itself when this process is gone. */
export async function startProgram(name, env, { inherit = true } = {}) {
  const child = spawn(process.execPath, [path.join(root, 'dist/server', `${name}.js`)], {
    cwd: root,
    env: { ...process.env, ...env },
    stdio: ['ignore', 'pipe', inherit ? 'inherit' : 'ignore', 'ipc'],
  })
  const ended = new Promise((resolve) => child.once('exit', (code, signal) => resolve(code ?? signal)))
  const addresses = await new Promise((resolve, reject) => {
    let said = ''
    child.stdout.on('data', (chunk) => {
      said += chunk
      const line = said.match(/^listening (.+)\n/m)
      if (line) resolve(line[1].split(' '))
    })
    child.once('exit', (code) => reject(new Error(`${name} ended with ${code} before it was ready.`)))
  })
  const stop = async () => {
    child.kill('SIGTERM')
    await ended
  }
  return { child, addresses, stop, ended }
}

/** Runs one of the built programs to its end, showing what it prints. */
export function runProgram(name, env) {
  return new Promise((resolve, reject) => {
    const child = spawn(process.execPath, [path.join(root, 'dist/server', `${name}.js`)], {
      cwd: root,
      env: { ...process.env, ...env },
      stdio: ['ignore', 'inherit', 'inherit'],
    })
    child.once('exit', (code) => (code === 0 ? resolve() : reject(new Error(`${name} ended with ${code}.`))))
  })
}

/** Builds in a process of its own, whose memory goes back when it is done. */
export function buildApart() {
  return new Promise((resolve, reject) => {
    const child = spawn(process.execPath, [path.join(root, 'scripts/build.mjs')], { cwd: root, stdio: ['ignore', 'inherit', 'inherit'] })
    child.once('exit', (code) => (code === 0 ? resolve() : reject(new Error('The build failed; what is wrong stands above.'))))
  })
}

const MOST_RESTARTS = 10
const LONGEST_PAUSE_MS = 30_000
/** Who ran so long before ending starts to be counted anew. */
const STEADY_MS = 60_000

/**
 * Keeps a part running: one that ends by itself is started again after a pause, each longer than the last.
 * After ten in a row `giveUp` is called with a sentence that says so.
 *
 * @param start answers a part with `stop` and `ended`
 */
export async function keepRunning(name, start, giveUp, { pauseMs = 500 } = {}) {
  let [restarts, stopping] = [0, false]
  let part = await start()
  let began = Date.now()
  const watch = () =>
    void part.ended.then(async (how) => {
      if (stopping) return
      if (Date.now() - began > STEADY_MS) restarts = 0
      for (;;) {
        restarts++
        if (restarts > MOST_RESTARTS) return giveUp(`${name} ended ${MOST_RESTARTS} times in a row and is not started again. What it said last stands above.`)
        const pause = Math.min(LONGEST_PAUSE_MS, pauseMs * 2 ** (restarts - 1))
        console.error(`${name} ended (${how}); it is started again in ${(pause / 1000).toFixed(1)} s.`)
        await new Promise((resolve) => setTimeout(resolve, pause))
        if (stopping) return
        try {
          part = await start()
          began = Date.now()
          console.error(`${name} runs again.`)
          return watch()
        } catch (error) {
          how = error instanceof Error ? error.message : error
        }
      }
    })
  watch()
  return {
    get part() {
      return part
    },
    async stop() {
      stopping = true
      await part.stop()
    },
  }
}

/** What tells a process from a later one with the same number: the moment it began. Null where the system does not say. */
export function identityOf(pid) {
  try {
    const stat = readFileSync(`/proc/${pid}/stat`, 'utf8')
    // The name may hold blanks and brackets; what follows its last bracket has none.
    return stat.slice(stat.lastIndexOf(')') + 2).split(' ')[19] ?? null
  } catch {
    return null
  }
}

/** Whether this very process, and no later one of its number, still runs. */
export function runs(pid, identity) {
  try {
    process.kill(pid, 0)
  } catch {
    return false
  }
  return identity === null || identityOf(pid) === identity
}

/** Ends a process, at first politely. */
export async function endProcess(pid, identity, patienceMs) {
  const until = Date.now() + patienceMs
  if (!runs(pid, identity)) return
  process.kill(pid, 'SIGTERM')
  while (runs(pid, identity) && Date.now() < until) await new Promise((resolve) => setTimeout(resolve, 100))
  if (runs(pid, identity)) process.kill(pid, 'SIGKILL')
  while (runs(pid, identity)) await new Promise((resolve) => setTimeout(resolve, 50))
}
