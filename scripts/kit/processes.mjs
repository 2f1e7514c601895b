import { spawn } from 'node:child_process'
import path from 'node:path'
import { root } from './tools.mjs'

/** Starts one of the built programs and waits for its line "listening …". */
export async function startProgram(name, env, { inherit = true } = {}) {
  const child = spawn(process.execPath, [path.join(root, 'dist/server', `${name}.js`)], {
    cwd: root,
    env: { ...process.env, ...env },
    stdio: ['ignore', 'pipe', inherit ? 'inherit' : 'ignore'],
  })
  const ended = new Promise((resolve) => child.once('exit', resolve))
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
