import { parse } from 'csv-parse/sync'
import { stringify } from 'csv-stringify/sync'
import { KINDS } from '#contract/portraits'
import { exportList } from '#contract/lists'
import { addOwnField, listOwnFields } from '#contract/own'
import { takeTable } from '#contract/setup'
import { REGISTER_LIST_FIELDS } from '#core/lists'
import { REGISTERS } from '#core/registers'
import type { RegisterName } from '#core/registers'
import { Client, House } from '../kit'
import type { Running } from '../kit'

/** Any register from a table: what a list gives out comes in again, and what comes in is held to the rules of a form. */
let house: House
let server: Running
let admin: Client

beforeAll(async () => {
  house = await House.open('registerTables')
  server = await house.start()
  admin = await new Client(server.url).signIn('wendeline.stroud')
})
afterAll(() => house?.close())

const file = (rows: string[][] | string) => ({ file: new Blob([typeof rows === 'string' ? rows : stringify(rows)], { type: 'text/csv' }) })
const table = (what: RegisterName, rows: string[][] | string, take = false, who = admin) =>
  who.must(takeTable, { what, siteId: 1, ...(take ? { take } : {}) }, file(rows))
const one = async <T>(statement: string) => (await house.rows<T>(statement))[0]!
/** Everything a list of the register can show, as it is given out. */
async function given(register: RegisterName, who = admin): Promise<string> {
  const own = (await admin.must(listOwnFields, {})).rows.filter((row) => row.kind === register)
  const columns = [...REGISTER_LIST_FIELDS[register].filter((field) => field.shows && !field.may).map(({ name }) => name), ...own.map(({ id }) => `own${id}`)]
  const ask = new URLSearchParams({ columns: columns.join(','), ...('ofSite' in KINDS[register] && KINDS[register].ofSite ? { site: '1' } : {}) })
  const reply = await who.call(exportList, { kind: register, ask: String(ask), format: 'csv' })
  expect(reply.status).toBe(200)
  return reply.text
}

describe('out and in again', () => {
  test.each(REGISTERS)('%s: nothing is new, nothing changed, nothing bad', async (register) => {
    const text = await given(register)
    const rows: string[][] = parse(text, { bom: true })
    expect(rows.length).toBeGreaterThan(1)
    const report = await table(register, text)
    const unmailed =
      register === 'people' ? (await one<{ n: number }>('SELECT COUNT(*) AS n FROM person WHERE email IS NULL AND site_id = 1 AND retired_at IS NULL')).n : 0
    expect({ bad: report.bad.filter(({ sentences }) => sentences[0] !== 'Mail address is missing.'), unread: report.unread }).toEqual({ bad: [], unread: [] })
    expect([report.fresh, report.changed, report.same, report.badCount]).toEqual([0, 0, rows.length - 1 - Number(unmailed), Number(unmailed)])
  })
})

describe('assets', () => {
  const HEADING = [
    'Tag',
    'Name',
    'Room',
    'Component of',
    'UNIFORMAT',
    'Condition',
    'Manufacturer',
    'Serial no',
    'Purchase price',
    'Install date',
    'Expected life',
    'Refrigerant',
    'Charge',
    'Leak check until',
    'Shoe size',
  ]
  const CHILLER = [
    'T-9001',
    'Chiller of the new hall',
    'TID-104 Laboratory 2',
    '',
    'D3030',
    'good',
    'Northcold',
    'NC-77',
    '12 500,50',
    '3.4.2019',
    '20',
    'R-744',
    '18,5 kg',
    '2027-05-01',
    '38',
  ]
  const PUMP = ['T-9002', 'Its pump', 'TID-104', 'T-9001', '', 'Fair', 'Northcold', 'NC-78', '', '', '', '', '', '', '']
  const column = (heading: string) => HEADING.indexOf(heading)
  const but = (row: string[], changes: Record<string, string>) => row.map((cell, at) => changes[HEADING[at]!] ?? cell)

  test('with their tree, their fields of one’s own and numbers as they are written here; looked at first', async () => {
    const before = await one<{ n: number }>('SELECT COUNT(*) AS n FROM asset')
    // The part stands before the whole.
    const rows = [HEADING, PUMP, CHILLER]
    const looked = await table('assets', rows)
    expect(looked.columns.map(({ field }) => field).slice(0, 5)).toEqual(['tag', 'name', 'placeId', 'parentId', 'classCode'])
    expect(looked.columns.at(-1)!.field).toBeNull()
    expect(looked).toMatchObject({ fresh: 2, changed: 0, same: 0, badCount: 0, taken: false })
    expect(await one('SELECT COUNT(*) AS n FROM asset')).toEqual(before)

    expect(await table('assets', rows, true)).toMatchObject({ fresh: 2, taken: true })
    const chiller = await one<Record<string, unknown>>("SELECT *, DATE_FORMAT(installed_on, '%Y-%m-%d') AS installed FROM asset WHERE tag = 'T-9001'")
    expect(chiller).toMatchObject({ class_code: 'D3030', condition: 'good', price_minor: 1_250_050, installed: '2019-04-03', life_years: 20, owner: 'us' })
    const pump = await one<Record<string, unknown>>("SELECT * FROM asset WHERE tag = 'T-9002'")
    expect(pump).toMatchObject({ parent_id: chiller.id, path: `/${String(chiller.id)}/${String(pump.id)}/`, condition: 'fair' })
    const own = await house.rows<{ label: string; text: string | null; number: string | null; day: string | null }>(
      `SELECT f.label, v.text, v.number, DATE_FORMAT(v.day, '%Y-%m-%d') AS day FROM own_value v JOIN own_field f ON f.id = v.field_id WHERE f.kind = 'assets' AND v.record_id = ${String(chiller.id)} ORDER BY f.label`,
    )
    expect(own.map((row) => [row.label, row.text ?? row.day ?? Number(row.number)])).toEqual([
      ['Charge', 18.5],
      ['Leak check until', '2027-05-01'],
      ['Refrigerant', 'r_744'],
    ])
    expect(await table('assets', rows, true)).toMatchObject({ fresh: 0, changed: 0, same: 2 })
    expect(await house.rows("SELECT id FROM event WHERE kind = 'register.add' AND record_id = " + String(chiller.id))).toHaveLength(1)
  })

  test('a changed cell changes one, a changed field of one’s own too; an empty cell leaves what is there', async () => {
    const changed = but(CHILLER, { Condition: 'poor', Charge: '19', 'Expected life': '' })
    expect(await table('assets', [HEADING, changed], true)).toMatchObject({ fresh: 0, changed: 1, badCount: 0 })
    expect(await one("SELECT `condition`, life_years FROM asset WHERE tag = 'T-9001'")).toEqual({ condition: 'poor', life_years: 20 })
    const alone = but(changed, { Charge: '20' })
    expect(await table('assets', [HEADING, alone], true)).toMatchObject({ changed: 1 })
    expect(await table('assets', [HEADING, alone])).toMatchObject({ changed: 0, same: 1 })
  })

  test('a table of a few columns is enough for those that are there', async () => {
    expect(await table('assets', 'tag;model\nT-9001;NX 40\n', true)).toMatchObject({ changed: 1, badCount: 0 })
    const report = await table('assets', 'tag;model\nT-9999;NX 40\n')
    expect(report.bad[0]!.sentences).toEqual(['Name is missing.', 'Place is missing.'])
  })

  let tries = 0
  test.each<[string, Record<string, string>, string]>([
    ['a place nobody knows', { Room: 'XXX-1' }, 'Place: there is no place XXX-1.'],
    ['a place of another site', { Room: 'MUS' }, 'Place: there is no place MUS.'],
    ['a condition that is none', { Condition: 'shiny' }, 'Condition: shiny is none of Good, Fair, Poor, Failing.'],
    ['a class that is none', { UNIFORMAT: 'Z9999' }, 'Class: Z9999 is none of the values there are.'],
    ['a price below nought', { 'Purchase price': '-5' }, 'Price: -5 is below nought.'],
    ['a day that is none', { 'Install date': '31.2.2020' }, 'Installed: 31.2.2020 is no day. Write it like 2026-11-24.'],
    ['half a year of life', { 'Expected life': '2.5' }, 'Expected life: Write a whole number.'],
    ['a choice of one’s own that is none', { Refrigerant: 'R-11' }, 'Refrigerant: R-11 is none of R-290, R-744, R-1234ze, R-134a.'],
    ['a number of one’s own that is none', { Charge: 'lots' }, 'Charge: lots is no number, or has more than four decimals.'],
    ['part of nothing that is there', { 'Component of': 'T-0' }, 'Part of: there is no asset T-0.'],
    ['a serial number that is taken', { 'Serial no': 'NC-78' }, 'Serial number NC-78 belongs to T-9002 Its pump already. Open that one, or write another.'],
  ])('%s is told with its line, and the good row beside it goes in alone', async (_name, wrong, sentence) => {
    const [bad, good] = [`T-B${++tries}`, `T-G${tries}`]
    const rows = [HEADING, but(CHILLER, { 'Serial no': `S-${bad}`, Tag: bad, ...wrong }), but(CHILLER, { 'Serial no': `S-${good}`, Tag: good })]
    const looked = await table('assets', rows)
    expect([looked.fresh, looked.bad.map((row) => [row.line, row.sentences])]).toEqual([1, [[2, [sentence]]]])
    expect(await table('assets', rows, true)).toMatchObject({ fresh: 1, badCount: 1 })
    expect(await house.rows<{ tag: string }>(`SELECT tag FROM asset WHERE tag IN ('${bad}', '${good}')`)).toEqual([{ tag: good }])
  })

  test('a row the register refuses leaves its fields of one’s own alone, too', async () => {
    const charge = () =>
      one(
        "SELECT v.number FROM own_value v JOIN own_field f ON f.id = v.field_id AND f.label = 'Charge' JOIN asset a ON a.id = v.record_id WHERE a.tag = 'T-9001'",
      )
    const before = await charge()
    const report = await table('assets', [HEADING, but(CHILLER, { 'Serial no': 'NC-78', Charge: '77' })], true)
    expect([report.changed, report.badCount, report.bad[0]!.sentences[0]]).toEqual([0, 1, expect.stringContaining('NC-78 belongs to')])
    expect(await charge()).toEqual(before)
  })

  test('two that are part of each other, and one that is part of a bad one, are bad', async () => {
    const ring = [but(PUMP, { Tag: 'T-R1', 'Component of': 'T-R2', 'Serial no': '' }), but(PUMP, { Tag: 'T-R2', 'Component of': 'T-R1', 'Serial no': '' })]
    const orphan = [
      but(PUMP, { Tag: 'T-O1', Room: 'NOWHERE', 'Component of': '', 'Serial no': '' }),
      but(PUMP, { Tag: 'T-O2', 'Component of': 'T-O1', 'Serial no': '' }),
    ]
    const { bad } = await table('assets', [HEADING, ...ring, ...orphan])
    expect(bad.map(({ line, sentences }) => [line, ...sentences])).toEqual([
      [2, 'T-R2, which it names, is not taken.'],
      [3, 'T-R1, which it names, is not taken.'],
      [4, 'Place: there is no place NOWHERE.'],
      [5, 'T-O1, which it names, is not taken.'],
    ])
  })

  test('what is part of one the register refuses is not taken without it', async () => {
    const rows = [HEADING, but(CHILLER, { Tag: 'T-P1', 'Serial no': 'NC-78' }), but(PUMP, { Tag: 'T-P2', 'Component of': 'T-P1', 'Serial no': 'NC-P2' })]
    for (const take of [false, true]) {
      const { fresh, bad } = await table('assets', rows, take)
      expect([fresh, bad.map(({ line, sentences }) => [line, sentences[0]])]).toEqual([
        0,
        [
          [2, expect.stringContaining('NC-78 belongs to')],
          [3, 'T-P1, which it names, is not taken.'],
        ],
      ])
    }
    expect(await house.rows("SELECT id FROM asset WHERE tag LIKE 'T-P_'")).toEqual([])
  })

  test('a retired one is not changed by a table, and the same tag twice is said', async () => {
    const { tag } = await one<{ tag: string }>(
      'SELECT tag FROM asset WHERE site_id = 1 AND retired_at IS NULL AND id NOT IN (SELECT COALESCE(parent_id, 0) FROM asset) ORDER BY id DESC LIMIT 1',
    )
    await house.rows(`UPDATE asset SET retired_at = NOW(3) WHERE tag = '${tag}'`)
    const { bad } = await table('assets', [
      ['Tag', 'Condition'],
      [tag, 'good'],
      ['T-9001', 'good'],
      ['t-9001', 'poor'],
    ])
    expect(bad.map((row) => row.sentences)).toEqual([[`${tag} is retired here. Take it into use again first.`], ['Line 3 is the same tag.']])
    expect(column('Tag')).toBe(0)
  })
})

describe('the others', () => {
  test('vendors, parts, stores, teams and equipment are entered by name or code', async () => {
    expect(await table('vendors', 'Name,Mail,Call-out,Markup\nconstructor,a@constructor.example,45.00,12.5%\n', true)).toMatchObject({ fresh: 1, badCount: 0 })
    expect(await one("SELECT call_out_minor, markup_bp FROM vendor WHERE name = 'constructor'")).toEqual({ call_out_minor: 4_500, markup_bp: 1_250 })
    expect(await table('parts', 'Part number,Description,UoM\nP-9100,Shaft seal 40 mm,piece\n', true)).toMatchObject({ fresh: 1 })
    expect(await table('stores', 'Name,Place\nBoat shed,TID-104\n', true)).toMatchObject({ fresh: 1 })
    expect(await table('teams', 'Name\nDivers\n', true)).toMatchObject({ fresh: 1 })
    expect(await table('equipment', 'Tag,Name\nEQ-91,Borescope\n', true)).toMatchObject({ fresh: 1 })
    expect(await table('payers', 'Code,Name,Kind,Tax\n9911,Seal clinic,Grant,0\n', true)).toMatchObject({ fresh: 1 })
    expect(await one("SELECT kind, tax_bp FROM payer WHERE code = '9911'")).toEqual({ kind: 'grant', tax_bp: 0 })
  })

  test('bank details are a column for who pays alone', async () => {
    const rows = 'Name,Mail,IBAN\nNew crane hire,crane@hire.example,DE89370400440532013000\n'
    const maren = await new Client(server.url).signIn('maren.quill')
    const report = await table('vendors', rows, true, maren)
    expect([report.columns[2]!.field, report.fields.some(({ code }) => code === 'iban')]).toEqual([null, false])
    expect(await one("SELECT iban FROM vendor WHERE name = 'New crane hire'")).toEqual({ iban: null })
  })

  test('people and places have their fields of one’s own, too', async () => {
    await admin.must(addOwnField, { kind: 'people', label: 'Parking', shape: 'flag' })
    expect(await table('people', 'name,email,department,Parking\nRuna Oyelade,runa@table.example,Plankton,yes\n', true)).toMatchObject({ fresh: 1 })
    expect(
      await one(
        "SELECT p.department, v.number FROM person p JOIN own_value v ON v.record_id = p.id JOIN own_field f ON f.id = v.field_id AND f.label = 'Parking' WHERE p.email = 'runa@table.example'",
      ),
    ).toMatchObject({
      department: 'Plankton',
    })
    expect(await table('people', 'name,email,Parking\nRuna Oyelade,runa@table.example,perhaps\n')).toMatchObject({ badCount: 1, changed: 0 })
    expect(await table('people', 'name,email,Parking\nRuna Oyelade,runa@table.example,no\n', true)).toMatchObject({ changed: 1 })
    expect(await table('places', 'code,name,kind,Key number\nTID-104,Laboratory 2,space,K-77\n')).toMatchObject({ changed: 1, badCount: 0 })
  })

  test('what a table gives out for a spreadsheet comes in as it was', async () => {
    expect(await table('vendors', "Name,Mail,Phone\nCrane two,two@hire.example,'+353 91 555 0199\n", true)).toMatchObject({ fresh: 1 })
    expect(await one("SELECT phone FROM vendor WHERE name = 'Crane two'")).toEqual({ phone: '+353 91 555 0199' })
  })

  test('of another site nothing is taken', async () => {
    await house.rows(
      "UPDATE account_role SET site_id = 2 WHERE account_id = (SELECT a.id FROM account a JOIN person p ON p.id = a.person_id WHERE p.email = 'yusuf.adeyemi-rourke@skerry.example')",
    )
    const other = await new Client(server.url).signIn('yusuf.adeyemi-rourke')
    expect((await other.call(takeTable, { what: 'teams', siteId: 1, take: true }, file('Name\nPirates\n'))).status).toBe(403)
    expect(await house.rows("SELECT id FROM team WHERE name = 'Pirates'")).toEqual([])
    expect((await other.must(takeTable, { what: 'teams', siteId: 2, take: true }, file('Name\nPirates\n'))).fresh).toBe(1)
  })
})
