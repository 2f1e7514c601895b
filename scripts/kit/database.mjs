import { execFileSync, spawn } from 'node:child_process'
import { existsSync, mkdirSync, mkdtempSync, rmSync } from 'node:fs'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import path from 'node:path'

/** A port nobody listens on. */
export function freePort() {
  return new Promise((resolve, reject) => {
    const probe = createServer()
      .once('error', reject)
      .listen(0, '127.0.0.1', () => {
        const { port } = probe.address()
        probe.close(() => resolve(port))
      })
  })
}

/**
 * Starts MariaDB on loopback with its files in `folder`, and answers how to reach and end it.
 * With `quick`, nothing is flushed to disk on commit: for tests that throw the data away.
 */
export async function startDatabase(folder, { quick = false } = {}) {
  const dataDir = path.join(folder, 'mariadb')
  const asRoot = process.getuid?.() === 0 ? ['--user=root'] : []
  if (!existsSync(path.join(dataDir, 'mysql'))) {
    mkdirSync(dataDir, { recursive: true })
    execFileSync('mariadb-install-db', ['--no-defaults', `--datadir=${dataDir}`, '--auth-root-authentication-method=normal', '--skip-test-db', ...asRoot], {
      stdio: ['ignore', 'ignore', 'inherit'],
    })
  }
  const port = await freePort()
  // A socket's path must be short, so it stands in a temporary folder rather than beside the data.
  const run = mkdtempSync(path.join(tmpdir(), 'evrix-'))
  const child = spawn(
    'mariadbd',
    [
      '--no-defaults',
      `--datadir=${dataDir}`,
      `--socket=${run}/db.sock`,
      `--pid-file=${run}/db.pid`,
      `--port=${port}`,
      '--bind-address=127.0.0.1',
      '--character-set-server=utf8mb4',
      '--collation-server=utf8mb4_general_ci',
      '--innodb-buffer-pool-size=512M',
      '--innodb-log-file-size=128M',
      '--max-connections=200',
      '--max-allowed-packet=64M',
      '--skip-log-bin',
      '--skip-name-resolve',
      `--innodb-flush-log-at-trx-commit=${quick ? 2 : 1}`,
      ...asRoot,
    ],
    { stdio: ['ignore', 'ignore', 'pipe'] },
  )
  let said = ''
  child.stderr.on('data', (chunk) => (said = (said + chunk).slice(-4000)))
  const ended = new Promise((resolve) => child.once('exit', resolve))
  await reachable(port, child, () => said)
  const stop = async () => {
    child.kill('SIGTERM')
    await ended
    rmSync(run, { recursive: true, force: true })
  }
  return { port, pid: child.pid, url: `mysql://root@127.0.0.1:${port}`, stop, ended }
}

async function reachable(port, child, said) {
  const { createConnection } = await import('mysql2/promise')
  for (let tries = 0; tries < 300; tries++) {
    if (child.exitCode !== null) throw new Error(`MariaDB did not start:\n${said()}`)
    try {
      const connection = await createConnection({ host: '127.0.0.1', port, user: 'root' })
      await connection.end()
      return
    } catch {
      await new Promise((resolve) => setTimeout(resolve, 100))
    }
  }
  throw new Error(`MariaDB did not answer within 30 s:\n${said()}`)
}

/** Makes a database with this name unless it is there, and answers its address. */
export async function ensureSchema(url, name) {
  const { createConnection } = await import('mysql2/promise')
  const connection = await createConnection(url)
  await connection.query(`CREATE DATABASE IF NOT EXISTS \`${name}\` CHARACTER SET utf8mb4 COLLATE utf8mb4_general_ci`)
  await connection.end()
  return `${url}/${name}`
}
