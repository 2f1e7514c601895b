import { spawn } from 'node:child_process'
import path from 'node:path'

const root = process.env.EVRIX_ROOT ?? process.cwd()

/** A server that answers. */
export interface Running {
  url: string
  pid: number
  stop: () => Promise<void>
  kill: () => Promise<void>
}

/** Starts a program and waits until it says where it listens. It ends with who started it. */
export async function startProgram(file: string, env: NodeJS.ProcessEnv) {
  const child = spawn(process.execPath, [path.join(root, file)], { cwd: root, env, stdio: ['ignore', 'pipe', 'inherit', 'ipc'] })
  const ended = new Promise<void>((resolve) => child.once('exit', () => resolve()))
  const addresses = await new Promise<string[]>((resolve, reject) => {
    let said = ''
    child.stdout!.on('data', (chunk: Buffer) => {
      said += chunk.toString()
      const line = /^listening (.+)\n/m.exec(said)
      if (line) resolve(line[1]!.split(' '))
    })
    child.once('exit', (code) => reject(new Error(`${file} ended with ${code}.`)))
  })
  const end = (signal: NodeJS.Signals) => async () => {
    if (child.exitCode === null && child.signalCode === null) child.kill(signal)
    await ended
  }
  return { addresses, process: child, stop: end('SIGTERM'), kill: end('SIGKILL') }
}

/** @throws where it does not end well */
export function runToEnd(file: string, env: NodeJS.ProcessEnv): Promise<void> {
  return new Promise((resolve, reject) => {
    const child = spawn(process.execPath, [path.join(root, file)], { cwd: root, env, stdio: ['ignore', 'ignore', 'inherit'] })
    child.once('exit', (code) => (code === 0 ? resolve() : reject(new Error(`${file} ended with ${code}.`))))
  })
}
