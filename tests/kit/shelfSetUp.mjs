import { mkdirSync, mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'

/** A shelf for the browsers of this run: opening one takes as long as many a test. */
export default function setUp() {
  const base = process.env.EVRIX_TEST_FOLDER ?? tmpdir()
  mkdirSync(base, { recursive: true })
  process.env.EVRIX_TEST_SHELF = path.join(mkdtempSync(path.join(base, 'browsers-')), 'free')
  mkdirSync(process.env.EVRIX_TEST_SHELF)
}
