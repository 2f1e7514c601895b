import { execFileSync, spawn } from 'node:child_process'
import { existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import path from 'node:path'
import { endProcess, identityOf } from './processes.mjs'

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

/** What is noted of a running database beside its data, so that the next start finds it. */
const NOTE = 'mariadb.json'
const MOST_PORTS = 5

/**
 * Holds the database by a line of its own: when whoever started it is gone, however that came about, the
 * line ends, and the database with it. Signals of a terminal are for its parent alone.
 */
const HOLDER = `
trap : HUP INT TERM
exec 3<&0
"$@" 3<&- & db=$!
(cat <&3 >/dev/null; kill -TERM $db; kill -CONT $db) 2>/dev/null & line=$!
while kill -0 $db 2>/dev/null; do wait $db; code=$?; done
kill $line 2>/dev/null
exit $code`

/**
 * Starts MariaDB on loopback with its files in `folder`, and answers how to reach and end it. One that still
 * runs there after its owner was killed is ended first. With `quick`, nothing is flushed to disk on commit: for
 * tests that throw the data away. `port` is the one to come back at after it ended by itself.
 */
export async function startDatabase(folder, { quick = false, port: wanted = null } = {}) {
  const dataDir = path.join(folder, 'mariadb')
  await endLeftover(folder)
  const asRoot = process.getuid?.() === 0 ? ['--user=root'] : []
  if (!existsSync(path.join(dataDir, 'mysql'))) {
    mkdirSync(dataDir, { recursive: true })
    execFileSync('mariadb-install-db', ['--no-defaults', `--datadir=${dataDir}`, '--auth-root-authentication-method=normal', '--skip-test-db', ...asRoot], {
      stdio: ['ignore', 'ignore', 'inherit'],
    })
  }
  for (let tries = 1; ; tries++)
    try {
      return await serve(folder, dataDir, wanted ?? (await freePort()), quick, asRoot)
    } catch (error) {
      // Between finding a port and taking it, somebody else may have.
      if (wanted !== null || tries === MOST_PORTS || !/address already in use|bind on tcp/i.test(error.message)) throw error
    }
}

async function serve(folder, dataDir, port, quick, asRoot) {
  // A socket's path must be short, so it stands in a temporary folder rather than beside the data.
  const run = mkdtempSync(path.join(tmpdir(), 'evrix-'))
  const pidFile = path.join(run, 'db.pid')
  const child = spawn(
    'sh',
    [
      '-c',
      HOLDER,
      'sh',
      'mariadbd',
      '--no-defaults',
      `--datadir=${dataDir}`,
      `--socket=${run}/db.sock`,
      `--pid-file=${pidFile}`,
      `--port=${port}`,
      // Of its own: a server that starts clears away the temporary tables of whoever shares it.
      `--tmpdir=${run}`,
      '--bind-address=127.0.0.1',
      '--character-set-server=utf8mb4',
      '--collation-server=utf8mb4_general_ci',
      '--innodb-buffer-pool-size=512M',
      `--innodb-log-file-size=${quick ? 32 : 128}M`,
      '--max-connections=200',
      '--max-allowed-packet=64M',
      '--skip-log-bin',
      '--skip-name-resolve',
      `--innodb-flush-log-at-trx-commit=${quick ? 2 : 1}`,
      ...asRoot,
    ],
    { stdio: ['pipe', 'ignore', 'pipe'], detached: true },
  )
  let said = ''
  child.stderr.on('data', (chunk) => (said = (said + chunk).slice(-4000)))
  child.stdin.on('error', () => undefined)
  const ended = new Promise((resolve) => child.once('exit', resolve)).then((code) => {
    rmSync(run, { recursive: true, force: true })
    return code
  })
  await reachable(port, child, pidFile, () => said)
  const pid = Number(readFileSync(pidFile, 'utf8'))
  writeFileSync(path.join(folder, NOTE), JSON.stringify({ pid, identity: identityOf(pid), run }))
  const stop = async () => {
    child.stdin.end()
    await ended
    rmSync(path.join(folder, NOTE), { force: true })
  }
  return { port, pid, socket: `${run}/db.sock`, url: `mysql://root@127.0.0.1:${port}`, stop, ended }
}

/** A database that runs on in this folder though nobody holds it any more: its lock would refuse the next one. */
async function endLeftover(folder) {
  const note = path.join(folder, NOTE)
  if (!existsSync(note)) return
  try {
    const { pid, identity, run } = JSON.parse(readFileSync(note, 'utf8'))
    await endProcess(pid, identity, 60_000)
    rmSync(run, { recursive: true, force: true })
  } catch {
    // A note that cannot be read is of no use.
  }
  rmSync(note, { force: true })
}

/** Waits for this server: on its port another may answer, while it cannot be had. */
async function reachable(port, child, pidFile, said) {
  const { createConnection } = await import('mysql2/promise')
  for (let tries = 0; tries < 600; tries++) {
    if (child.exitCode !== null) throw new Error(`MariaDB did not start:\n${said()}`)
    try {
      const connection = await createConnection({ host: '127.0.0.1', port, user: 'root', connectTimeout: 2000 })
      const [[{ answers }]] = await connection.query('SELECT @@pid_file AS answers')
      await connection.end()
      if (answers === pidFile) return
    } catch {
      // Not yet.
    }
    await new Promise((resolve) => setTimeout(resolve, 100))
  }
  throw new Error(`MariaDB did not answer within 60 s:\n${said()}`)
}

/** Makes a database with this name unless it is there, and answers its address. */
export async function ensureSchema(url, name) {
  const { createConnection } = await import('mysql2/promise')
  const connection = await createConnection(url)
  await connection.query(`CREATE DATABASE IF NOT EXISTS \`${name}\` CHARACTER SET utf8mb4 COLLATE utf8mb4_general_ci`)
  await connection.end()
  return `${url}/${name}`
}
