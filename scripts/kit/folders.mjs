import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import { endProcess, identityOf, runs } from './processes.mjs'

const OWNER = 'owner.json'

/** A folder of this process in the system's temporary one; those of owners that are gone are removed. */
export async function ownFolder(prefix) {
  for (const name of readdirSync(tmpdir())) if (name.startsWith(prefix)) await removeOrphan(path.join(tmpdir(), name))
  const folder = mkdtempSync(path.join(tmpdir(), prefix))
  writeFileSync(path.join(folder, OWNER), JSON.stringify({ pid: process.pid, identity: identityOf(process.pid) }))
  return folder
}

async function removeOrphan(folder) {
  const note = path.join(folder, OWNER)
  if (!existsSync(note)) return
  try {
    const { pid, identity } = JSON.parse(readFileSync(note, 'utf8'))
    if (runs(pid, identity)) return
    const database = path.join(folder, 'mariadb.json')
    if (existsSync(database)) {
      const left = JSON.parse(readFileSync(database, 'utf8'))
      await endProcess(left.pid, left.identity, 10_000)
    }
    rmSync(folder, { recursive: true, force: true })
  } catch {
    // Somebody else's, or being removed at this moment.
  }
}

/**
 * Marks a data folder as this process's own.
 * @throws Error when another process that still runs has it
 */
export function claimFolder(folder) {
  const note = path.join(folder, OWNER)
  if (existsSync(note)) {
    let owner = null
    try {
      owner = JSON.parse(readFileSync(note, 'utf8'))
    } catch {
      // A note that cannot be read is nobody's.
    }
    if (owner && owner.pid !== process.pid && runs(owner.pid, owner.identity))
      throw new Error(`Evrix runs from ${folder} already (process ${owner.pid}). End that one first, or set EVRIX_DATA_DIR to another folder.`)
  }
  writeFileSync(note, JSON.stringify({ pid: process.pid, identity: identityOf(process.pid) }))
  return () => rmSync(note, { force: true })
}
