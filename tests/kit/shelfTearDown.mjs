import { existsSync, readdirSync, readFileSync, rmSync } from 'node:fs'
import path from 'node:path'

/** Ends the browsers that wait, what drives them, and the processes that ran servers. */
export default async function tearDown() {
  const shelves = [process.env.EVRIX_TEST_SHELF, process.env.EVRIX_TEST_SERVERS]
  for (const shelf of shelves.filter(existsSync)) {
    for (const one of readdirSync(shelf)) {
      const { server, pid } = JSON.parse(readFileSync(path.join(shelf, one), 'utf8'))
      if (server) await fetch(new URL('shutdown', server)).catch(() => null)
      else end(pid)
    }
    rmSync(path.dirname(shelf), { recursive: true, force: true })
  }
}

function end(pid) {
  try {
    process.kill(pid, 'SIGTERM')
  } catch {
    // It has ended by itself.
  }
}
