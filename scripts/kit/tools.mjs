import { execFileSync, spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { chmodSync, existsSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs'
import path from 'node:path'
import { fileURLToPath } from 'node:url'

export const root = path.resolve(path.dirname(fileURLToPath(import.meta.url)), '../..')

const has = (program) => spawnSync('sh', ['-c', `command -v ${program}`]).status === 0

/** Installs Debian packages for the programs that are missing. */
export function ensurePrograms(wanted) {
  const missing = Object.entries(wanted)
    .filter(([program]) => !has(program))
    .map(([, name]) => name)
  if (!missing.length) return
  console.log(`Installing ${missing.join(', ')} …`)
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' }
  withoutServices(() => {
    execFileSync('apt-get', ['update', '-qq'], { env, stdio: ['ignore', 'ignore', 'inherit'] })
    execFileSync('apt-get', ['install', '-y', '-qq', '--no-install-recommends', ...missing], { env, stdio: ['ignore', 'ignore', 'inherit'] })
  })
}

/** Packages that bring a service do not start it here: the project runs its own, in its own folder. */
function withoutServices(install) {
  const policy = '/usr/sbin/policy-rc.d'
  const mine = !existsSync(policy)
  if (mine) {
    writeFileSync(policy, '#!/bin/sh\nexit 101\n')
    chmodSync(policy, 0o755)
  }
  try {
    install()
  } finally {
    if (mine) rmSync(policy)
  }
}

/** Installs npm packages when they are missing or the lock file is newer than what is there. */
export function ensurePackages() {
  const installed = path.join(root, 'node_modules/.package-lock.json')
  const lock = path.join(root, 'package-lock.json')
  const stamp = path.join(root, 'node_modules/.evrix-lock')
  const wanted = createHash('sha256').update(readFileSync(lock)).digest('hex')
  if (existsSync(installed) && existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return
  if (existsSync(installed) && statSync(installed).mtimeMs >= statSync(lock).mtimeMs && existsSync(path.join(root, 'node_modules/vite')))
    return writeFileSync(stamp, wanted)
  console.log('Installing npm packages …')
  // Not “npm ci”: it insists on packages for other systems, which not every registry carries.
  execFileSync('npm', ['install', '--no-save', '--no-audit', '--no-fund', '--loglevel=error'], { cwd: root, stdio: ['ignore', 'ignore', 'inherit'] })
  writeFileSync(stamp, wanted)
}
