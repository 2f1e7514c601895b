import { execFile, spawn, spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { chmodSync, existsSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs'
import path from 'node:path'
import { fileURLToPath } from 'node:url'
import { promisify } from 'node:util'

export const root = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '../..')

const has = (program) => spawnSync('sh', ['-c', `command -v ${program}`]).status === 0

/** Installs what is missing: Debian packages and npm packages beside each other, since one mostly waits while the other reckons. */
export async function ensureInstalled(programs) {
  const signals = ['SIGINT', 'SIGTERM', 'SIGHUP']
  for (const signal of signals) process.once(signal, giveUp)
  const ended = await Promise.allSettled([ensurePrograms(programs), ensurePackages()])
  for (const signal of signals) process.off(signal, giveUp)
  if (isGivenUp) process.exit(1)
  const failed = ended.find((one) => one.status === 'rejected')
  if (failed) throw failed.reason
}

let npm = null
let isGivenUp = false
/** npm ends with whoever asked for it, at once: it would go on to its end. A program that is being set up is not left half of it. */
function giveUp() {
  isGivenUp = true
  npm?.kill('SIGKILL')
}

/** Installs the Debian packages of those programs that are missing. */
async function ensurePrograms(wanted) {
  const missing = Object.entries(wanted)
    .filter(([program]) => !has(program))
    .map(([, name]) => name)
  if (!missing.length) return
  console.log(`Installing ${missing.join(', ')} …`)
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' }
  await withoutServices(async () => {
    await run('apt-get', ['update', '-qq'], { env })
    await run('apt-get', ['install', '-y', '-qq', '--no-install-recommends', ...missing], { env })
  })
}

/** Packages that bring a service do not start it here: the project runs its own, in its own folder. */
async function withoutServices(install) {
  const policy = '/usr/sbin/policy-rc.d'
  const mine = !existsSync(policy)
  if (mine) {
    writeFileSync(policy, '#!/bin/sh\nexit 101\n')
    chmodSync(policy, 0o755)
  }
  try {
    await install()
  } finally {
    if (mine) rmSync(policy)
  }
}

/** Installs npm packages when they are missing or the lock file is newer than what is there. */
async function ensurePackages() {
  const installed = path.join(root, 'node_modules/.package-lock.json')
  const lock = path.join(root, 'package-lock.json')
  const stamp = path.join(root, 'node_modules/.evrix-lock')
  const wanted = createHash('sha256').update(readFileSync(lock)).digest('hex')
  if (existsSync(installed) && existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return
  if (existsSync(installed) && statSync(installed).mtimeMs >= statSync(lock).mtimeMs && existsSync(path.join(root, 'node_modules/vite')))
    return writeFileSync(stamp, wanted)
  console.log('Installing npm packages …')
  // Where packages lie in a registry of another kind, npm finds out by asking it.
  await installFrom(await addressedLock(lock)).catch((error) => {
    if (isGivenUp) throw error
    return installFrom(null)
  })
  writeFileSync(stamp, wanted)
}

/**
 * What the lock file says, and where each package lies in the registry of this machine: the file itself names none.
 * Without addresses npm reads all that was ever published of each package first, which is most of its time.
 */
async function addressedLock(lock) {
  const { stdout } = await promisify(execFile)('npm', ['config', 'get', 'registry'], { cwd: root })
  const registry = stdout.trim().replace(/\/*$/, '/')
  const content = JSON.parse(readFileSync(lock, 'utf8'))
  for (const [place, entry] of Object.entries(content.packages)) {
    if (!place || entry.link || entry.inBundle || entry.resolved) continue
    const name = entry.name ?? place.slice(place.lastIndexOf('node_modules/') + 'node_modules/'.length)
    entry.resolved = `${registry}${name}/-/${name.slice(name.indexOf('/') + 1)}-${entry.version}.tgz`
  }
  return content
}

/** npm reads this before a lock file; it stands there only while packages are installed. */
const shrinkwrap = path.join(root, 'npm-shrinkwrap.json')

async function installFrom(content) {
  rmSync(shrinkwrap, { force: true })
  if (content) writeFileSync(shrinkwrap, JSON.stringify(content))
  try {
    // Not “npm ci”: it insists on packages for other systems, which not every registry carries.
    await run('npm', ['install', '--no-save', '--no-audit', '--no-fund', '--loglevel=error'], { cwd: root })
  } finally {
    rmSync(shrinkwrap, { force: true })
  }
}

/** Resolves when a program has ended well; what it complains of is shown. */
function run(program, args, options) {
  return new Promise((resolve, reject) => {
    const child = spawn(program, args, { ...options, stdio: ['ignore', 'ignore', 'inherit'] })
    if (program === 'npm') npm = child
    child.once('error', reject)
    child.once('exit', (code) => (code === 0 ? resolve() : reject(new Error(`${program} ${args[0]} ended with ${code}.`))))
  })
}
