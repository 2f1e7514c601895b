import { mkdirSync, mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'

/** Shelves for the browsers and servers of this run: opening one takes as long as many a test. */
export default function setUp() {
  const base = process.env.EVRIX_TEST_FOLDER ?? tmpdir()
  mkdirSync(base, { recursive: true })
  if (process.env.EVRIX_TEST_SHELF) return
  process.env.EVRIX_TEST_SHELF = path.join(mkdtempSync(path.join(base, 'browsers-')), 'free')
  process.env.EVRIX_TEST_SERVERS = path.join(mkdtempSync(path.join(base, 'servers-')), 'free')
  mkdirSync(process.env.EVRIX_TEST_SHELF)
  mkdirSync(process.env.EVRIX_TEST_SERVERS)
}
