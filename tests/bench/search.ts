import { createPool } from 'mysql2/promise'
import type { RowDataPacket } from 'mysql2/promise'
import { findPeople } from '#contract/people'
import { findPlaces } from '#contract/places'
import { Client } from '../kit'
import type { House, Running } from '../kit'
import { median } from './table'
import type { Measure } from './table'

const ROWS = 20_000
const ROUNDS = 60
const MOST_SLOWER = 1.2
const PEOPLE = ['oyel', 'maren 21', 'ottoline', 'person 19', '4711']
const PLACES = ['room 12', 'store 19', 'bm-1', 'wing 7 room', 'labor']

/** Finding somebody, or a place, among 20,000 while typing, against the same SQL through the driver, taking turns. */
export async function measureSearch(house: House, server: Running): Promise<Measure[]> {
  await fill(house)
  const pool = createPool({ uri: house.databaseUrl, timezone: 'Z', connectionLimit: 4 })
  const desk = await new Client(server.url).signIn('maren.quill')
  const timed = async (run: () => Promise<unknown>) => {
    const began = performance.now()
    await run()
    return performance.now() - began
  }
  const compare = async (what: string, ask: (q: string) => Promise<unknown>, direct: (words: string[]) => Promise<unknown>, searches: string[]) => {
    const [ours, theirs]: [number[], number[]] = [[], []]
    for (let n = 0; n < ROUNDS; n++) {
      const q = searches[n % searches.length]!
      theirs.push(await timed(() => direct(q.split(/[ -]/))))
      ours.push(await timed(() => ask(q)))
    }
    const [a, b] = [median(ours), median(theirs)]
    return {
      what,
      measured: `${a.toFixed(1)} ms, ${(a / b).toFixed(2)} x (driver ${b.toFixed(1)} ms)`,
      limit: `at most ${MOST_SLOWER} x`,
      kept: a <= MOST_SLOWER * b,
    }
  }
  const like = (column: string, words: string[]) => words.map(() => `${column} LIKE ?`).join(' AND ')
  const measures = [
    await compare(
      `finding a person among ${ROWS.toLocaleString('en')}`,
      (q) => desk.must(findPeople, { q, limit: 12 }),
      (words) =>
        pool.query(
          `SELECT p.*, pl.name AS place_name FROM person p LEFT JOIN place pl ON pl.id = p.place_id WHERE ${like('p.search_text', words)} ORDER BY p.name LIMIT 12`,
          words.map((word) => `%${word}%`),
        ),
      PEOPLE,
    ),
    await compare(
      `finding a place among ${ROWS.toLocaleString('en')}`,
      (q) => desk.must(findPlaces, { q, limit: 12 }),
      async (words) => {
        const [rows] = await pool.query<RowDataPacket[]>(
          `SELECT * FROM place WHERE ${like('search_text', words)} ORDER BY code LIMIT 12`,
          words.map((word) => `%${word}%`),
        )
        const above = rows.flatMap((row) => String(row.path).split('/').filter(Boolean))
        if (above.length) await pool.query('SELECT id, name, kind FROM place WHERE id IN (?)', [above])
      },
      PLACES,
    ),
  ]
  await pool.end()
  return measures
}

async function fill(house: House): Promise<void> {
  await house.rows(`INSERT INTO person (site_id, name, email, phone, extension, title, search_text)
    SELECT 1, CONCAT('Person ', seq, ' Oyelade'), CONCAT('p', seq, '@many.example'), NULL, seq, 'Guest', CONCAT('person ', seq, ' oyelade p', seq, ' many example ', seq, ' guest')
    FROM seq_1_to_${ROWS}`)
  const [site] = await house.rows<{ id: number; path: string }>("SELECT id, path FROM place WHERE site_id = 1 AND kind = 'site'")
  await house.rows(
    `INSERT INTO place (site_id, parent_id, kind, code, name, path, search_text)
     SELECT 1, ?, 'space', CONCAT('BM-', seq), CONCAT(ELT(1 + seq MOD 3, 'Room ', 'Store ', 'Laboratory '), seq), '', CONCAT('bm ', seq, ' ', ELT(1 + seq MOD 3, 'room ', 'store ', 'laboratory '), seq, ' wing ', seq MOD 40)
     FROM seq_1_to_${ROWS}`,
    [site!.id],
  )
  await house.rows("UPDATE place SET path = CONCAT(?, id, '/') WHERE code LIKE 'BM-%'", [site!.path])
  await house.rows('ANALYZE TABLE person, place')
}
