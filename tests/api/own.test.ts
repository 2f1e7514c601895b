import { exportList, listGroups, listOrderLines, listRecordLines, listRequestLines, readListFacts, saveView, search } from '#contract/lists'
import type { OwnFieldRow } from '#contract/own'
import { addOwnField, editOwn, editOwnField, listOwnFields, readOwn } from '#contract/own'
import { readPortraitTimeline } from '#contract/portraits'
import { readRequestTimeline, writeComment } from '#contract/requests'
import { previewWording, saveWording } from '#contract/setup'
import { castAt, Client, House, orderAt, report } from '../kit'
import type { Cast, Running } from '../kit'

/** Fields a site adds: from Setup to the Sheet, lists, export, search and mail. */
let house: House
let server: Running
let cast: Cast
let admin: Client
let fields: OwnFieldRow[]

beforeAll(async () => {
  house = await House.open('own', { mail: true })
  server = await house.start()
  cast = await castAt(server.url)
  admin = await new Client(server.url).signIn('wendeline.stroud')
  fields = (await admin.must(listOwnFields, {})).rows
})
afterAll(() => house?.close())

const called = (label: string) => fields.find((one) => one.label === label)!
const nameOf = (label: string) => `own${called(label).id}`
const ids = (rows: { id: number }[]) => rows.map((row) => row.id).sort((a, b) => a - b)

describe('in Setup', () => {
  test('a field is added, called otherwise, put elsewhere, retired and taken back', async () => {
    const { rows } = await admin.must(addOwnField, { kind: 'vendors', label: 'Portal', shape: 'link' })
    const portal = rows.find((row) => row.label === 'Portal')!
    expect(portal).toMatchObject({ kind: 'vendors', shape: 'link', version: 1, retired: false, used: 0 })
    const second = (await admin.must(addOwnField, { kind: 'vendors', label: 'Score', shape: 'number', unit: '%' })).rows.find((row) => row.label === 'Score')!
    const moved = (await admin.must(editOwnField, { id: second.id, version: 1, before: portal.id })).rows.filter((row) => row.kind === 'vendors')
    expect(moved.map((row) => row.label)).toEqual(['Score', 'Portal'])
    const named = (await admin.must(editOwnField, { id: portal.id, version: 1, label: 'Their portal' })).rows.find((row) => row.id === portal.id)!
    expect(named).toMatchObject({ label: 'Their portal', version: 2 })
    expect((await admin.call(editOwnField, { id: portal.id, version: 1, label: 'Old' })).status).toBe(409)
    await admin.must(editOwnField, { id: portal.id, version: 2, retired: true })
    expect((await admin.must(readOwn, { kind: 'vendors', id: 1 })).fields.map((field) => field.label)).toEqual(['Score'])
    await admin.must(addOwnField, { kind: 'vendors', label: 'their PORTAL', shape: 'text' })
    expect((await admin.call(editOwnField, { id: portal.id, version: 3, retired: false })).problem.reasons![0]).toMatchObject({ code: 'name_taken' })
  })

  test('what cannot be is refused at its field', async () => {
    const tried = async (more: object) => (await admin.call(addOwnField, { kind: 'parts', label: 'Shelf', shape: 'choice', ...more })).problem.reasons
    expect(await tried({})).toEqual([expect.objectContaining({ code: 'too_few', field: 'choices' })])
    expect(await tried({ choices: ['A', 'a'] })).toEqual([expect.objectContaining({ code: 'twice' })])
    expect((await tried({ label: '' }))![0]).toMatchObject({ field: 'label' })
    expect((await cast.coordinator.call(addOwnField, { kind: 'parts', label: 'Shelf', shape: 'text' })).status).toBe(403)
  })

  test('a choice is called otherwise and keeps what was chosen; one that is chosen is not taken away', async () => {
    const refrigerant = called('Refrigerant')
    const [first, ...rest] = refrigerant.choices
    const kept = [{ ...first!, name: 'Propane (R-290)' }, ...rest, { name: 'R-32' }]
    const { rows } = await admin.must(editOwnField, { id: refrigerant.id, version: refrigerant.version, choices: kept })
    expect(rows.find((row) => row.id === refrigerant.id)!.choices.map((one) => one.key)).toEqual([...refrigerant.choices.map((one) => one.key), 'r_32'])
    const refused = await admin.call(editOwnField, { id: refrigerant.id, version: refrigerant.version + 1, choices: rest.concat({ key: 'x', name: 'X' }) })
    expect(refused.problem.reasons![0]!.sentence).toMatch(/“Propane \(R-290\)” is chosen in \d+ records/)
    fields = rows
  })
})

describe('on what they are of', () => {
  test('values are kept by their shape, told on the timeline, and two who change them at once are told of each other', async () => {
    const [asset] = await house.rows<{ id: number }>("SELECT id FROM asset WHERE tag = 'AIR-1'")
    const own = await cast.coordinator.must(readOwn, { kind: 'assets', id: asset!.id })
    expect(own).toMatchObject({ version: 0, whyNot: null })
    const sent = { [nameOf('Charge')]: 4.25, [nameOf('Refrigerant')]: 'r_744', [nameOf('Leak check until')]: '2027-03-01' }
    const now = await cast.coordinator.must(editOwn, { kind: 'assets', id: asset!.id, version: 0, ...sent })
    expect(now).toMatchObject({ version: 1, ...sent })
    const late = await cast.coordinator.call(editOwn, { kind: 'assets', id: asset!.id, version: 0, [nameOf('Charge')]: 5 })
    expect([late.status, late.problem.conflict]).toEqual([409, [{ field: nameOf('Charge'), theirs: 4.25, yours: 5 }]])
    const told = await cast.coordinator.must(readPortraitTimeline, { register: 'assets', id: asset!.id })
    expect(told.entries.some((entry) => entry.kind === 'own.edit')).toBe(true)
    const both = await Promise.all(
      [1, 2].map((value) => cast.coordinator.call(editOwn, { kind: 'assets', id: asset!.id, version: 1, [nameOf('Charge')]: value })),
    )
    expect(both.map((reply) => reply.status).sort()).toEqual([200, 409])
    const emptied = await cast.coordinator.must(editOwn, { kind: 'assets', id: asset!.id, version: 2, [nameOf('Charge')]: '' })
    expect(emptied[nameOf('Charge')]).toBeNull()
  })

  test('what cannot be kept is refused at its field, and nothing of it is kept', async () => {
    const send = async (values: object) => (await cast.coordinator.call(editOwn, { kind: 'places', id: 7, version: 0, ...values })).problem
    expect((await send({ [nameOf('Key holder')]: 99_999 })).reasons![0]).toMatchObject({ field: nameOf('Key holder') })
    expect((await send({ [nameOf('Animals inside')]: 'perhaps', [nameOf('Key number')]: 'K-1' })).reasons).toEqual([
      expect.objectContaining({ field: nameOf('Animals inside') }),
    ])
    expect((await send({ own999999: 'x' })).reasons![0]).toMatchObject({ code: 'no_field' })
    expect((await send({ [nameOf('Charge')]: 3 })).reasons![0]).toMatchObject({ code: 'no_field' })
    expect((await send({ colour: 'x' })).status).toBe(400)
    expect((await cast.coordinator.must(readOwn, { kind: 'places', id: 7 })).version).toBe(0)
  })

  test('by who changes the record, where it can be changed, and of their sites', async () => {
    const { id } = await orderAt(cast, 'draft')
    const edit = (who: Client) => who.call(editOwn, { kind: 'orders', id, version: 0, [nameOf('Purchase number')]: 'PN-1' })
    expect((await edit(cast.technician)).status).toBe(403)
    expect((await new Client(server.url).call(readOwn, { kind: 'orders', id })).status).toBe(401)
    expect((await edit(cast.coordinator)).status).toBe(200)
    const [closed] = await house.rows<{ id: number }>("SELECT id FROM work_order WHERE state = 'closed' LIMIT 1")
    const refused = await cast.coordinator.call(editOwn, { kind: 'orders', id: closed!.id, version: 0, [nameOf('Purchase number')]: 'x' })
    expect(refused.problem.reasons![0]!.sentence).toContain('settled')
    expect((await cast.coordinator.call(readOwn, { kind: 'orders', id: 9_999_999 })).status).toBe(404)
    await house.rows(
      "UPDATE account_role SET site_id = (SELECT id FROM site WHERE code = 'MUS') WHERE account_id = (SELECT id FROM account WHERE email LIKE 'osric.vane@%')",
    )
    const elsewhere = await new Client(server.url).signIn('osric.vane')
    expect((await elsewhere.call(readOwn, { kind: 'orders', id })).status).toBe(404)
    expect((await elsewhere.call(readOwn, { kind: 'places', id: 7 })).status).toBe(404)
  })
})

describe('in lists', () => {
  const records = async (ask: string) => (await cast.coordinator.must(listRecordLines, { register: 'assets', ask, limit: 200 })).rows
  const sqlIds = async (label: string, where: string) =>
    ids(
      await house.rows<{ id: number }>(`SELECT v.record_id AS id FROM own_value v JOIN asset a ON a.id = v.record_id WHERE v.field_id = ? AND ${where}`, [
        called(label).id,
      ]),
    )

  test('are asked for by what they are', async () => {
    expect(ids(await records(`${nameOf('Refrigerant')}=r_290,r_744`))).toEqual(await sqlIds('Refrigerant', "v.text IN ('r_290', 'r_744')"))
    expect(ids(await records(`${nameOf('Charge')}=7.75..20`))).toEqual(await sqlIds('Charge', 'v.number BETWEEN 7.75 AND 20'))
    expect(ids(await records(`${nameOf('Leak check until')}=..-1d`))).toEqual(await sqlIds('Leak check until', "v.day < '2026-11-23'"))
    expect(ids(await records(`${nameOf('Manual')}=northcold`))).toEqual(await sqlIds('Manual', "v.text LIKE '%northcold%'"))
    const cold = ids(await records(`${nameOf('Refrigerant')}=any`))
    const not = ids(await records(`class=D3030&${nameOf('Refrigerant')}=!r_290`))
    expect(not.length).toBeLessThan(cold.length)
    expect((await cast.coordinator.must(readListFacts, { kind: 'assets', ask: `${nameOf('Refrigerant')}=none` })).count).toBe(
      (await house.rows<{ n: number }>('SELECT COUNT(*) AS n FROM asset WHERE retired_at IS NULL'))[0]!.n - cold.length,
    )
    const yes = (
      await cast.coordinator.must(listRecordLines, {
        register: 'places',
        ask: `${nameOf('Animals inside')}=yes&columns=code,${nameOf('Animals inside')}`,
        limit: 200,
      })
    ).rows
    expect(yes.length).toBeGreaterThan(0)
    expect(yes.every((row) => row.cells[nameOf('Animals inside')] === true)).toBe(true)
    const [holder] = await house.rows<{ number: number; name: string }>(
      'SELECT v.number, p.name FROM own_value v JOIN person p ON p.id = v.number WHERE v.field_id = ? LIMIT 1',
      [called('Key holder').id],
    )
    const held = (
      await cast.coordinator.must(listRecordLines, {
        register: 'places',
        ask: `${nameOf('Key holder')}=${Number(holder!.number)}&columns=code,${nameOf('Key holder')}`,
        limit: 200,
      })
    ).rows
    expect(held[0]!.cells[nameOf('Key holder')]).toBe(holder!.name)
  })

  test('orders and requests too: put in order page by page, those without it last; brought together; shown', async () => {
    const name = nameOf('Plant stands still')
    const seen: unknown[] = []
    let after: string | undefined
    do {
      const page = await cast.coordinator.must(listOrderLines, {
        ask: `sort=-${name}&columns=number,${name}&${name}=any`,
        limit: 7,
        ...(after ? { after } : {}),
      })
      seen.push(...page.rows.map((row) => row.own[name]))
      after = page.next ?? undefined
    } while (after)
    const expected = await house.rows<{ number: string }>(
      'SELECT v.number FROM own_value v JOIN work_order o ON o.id = v.record_id WHERE v.field_id = ? AND o.archived = 0 AND o.discarded_at IS NULL ORDER BY v.number DESC, o.id DESC',
      [called('Plant stands still').id],
    )
    expect(seen).toEqual(expected.map((row) => Number(row.number)))
    const all = await cast.coordinator.must(listOrderLines, { ask: `sort=${name}&columns=number,${name}`, limit: 200 })
    const values = all.rows.map((row) => row.own[name] ?? null)
    expect(values.indexOf(null)).toBe(Math.min(values.length, expected.length))
    const groups = await cast.coordinator.must(listGroups, { kind: 'assets', ask: `group=${nameOf('Refrigerant')}` })
    expect(groups.rows.map((row) => row.label)).toEqual(expect.arrayContaining(['None', 'R-744']))
    const visit = nameOf('Visitors on')
    expect(
      (await cast.coordinator.must(listRequestLines, { ask: `${visit}=today..&columns=number,${visit}` })).rows.every(
        (row) => String(row.own[visit]) >= '2026-11-23',
      ),
    ).toBe(true)
  })

  test('a part of a text is found among very many, wherever in its index it stands', async () => {
    const label = 'Shelf mark'
    const { id } = (await admin.must(addOwnField, { kind: 'orders', label, shape: 'text' })).rows.find((row) => row.label === label)!
    // Values of records that are long gone: as many as make the search share its work.
    await house.rows(
      'INSERT INTO own_value (field_id, record_id, text) SELECT ?, 1000000 + seq, CONCAT(CHAR(65 + MOD(seq, 26)), "-", seq) FROM seq_1_to_20000',
      [id],
    )
    const some = (await house.rows<{ id: number }>('SELECT id FROM work_order WHERE site_id = 1 AND discarded_at IS NULL ORDER BY id DESC LIMIT 6')).map(
      (row) => row.id,
    )
    for (const [index, text] of ['Aa needle', 'gG NEEDLE x', 'needle', 'zz-needle', '0needle0', 'no match'].entries())
      await house.rows('INSERT INTO own_value (field_id, record_id, text) VALUES (?, ?, ?)', [id, some[index], text])
    const { rows } = await cast.coordinator.must(listOrderLines, { ask: `own${id}=needle`, limit: 50 })
    expect(ids(rows)).toEqual(some.slice(0, 5).sort((a, b) => a - b))
    await house.rows('DELETE FROM own_value WHERE field_id = ?', [id])
  })

  test('go out in a table, are kept in a view, and are found', async () => {
    const name = nameOf('Charge')
    const ask = `${name}=any&columns=tag,${nameOf('Refrigerant')},${name}&sort=${name}`
    const file = await cast.coordinator.call(exportList, { kind: 'assets', ask, format: 'csv' })
    const [head, first] = file.text.trim().split('\r\n')
    expect(head).toBe('Tag,Refrigerant,Charge')
    expect(first).toMatch(/,Propane \(R-290\),1\.2$/)
    expect((await cast.coordinator.must(saveView, { name: 'Cooling', kind: 'assets', address: ask, sharedWith: 'nobody' })).key).toMatch(/^v/)
    expect((await cast.coordinator.call(listRecordLines, { register: 'vendors', ask: `${name}=any` })).status).toBe(422)
    const [key] = await house.rows<{ text: string; record_id: number }>('SELECT text, record_id FROM own_value WHERE field_id = ? LIMIT 1', [
      called('Key number').id,
    ])
    expect((await cast.coordinator.must(search, { q: key!.text })).rows).toEqual(
      expect.arrayContaining([expect.objectContaining({ type: 'place', id: key!.record_id })]),
    )
    const [order] = await house.rows<{ text: string; record_id: number }>('SELECT text, record_id FROM own_value WHERE field_id = ? LIMIT 1', [
      called('Purchase number').id,
    ])
    expect((await cast.coordinator.must(search, { q: order!.text.toLowerCase() })).rows[0]).toMatchObject({ type: 'order', id: order!.record_id })
    // Also by a word that stands inside it.
    await house.rows("UPDATE own_value SET text = 'Drawer seven behind the lamprey tank' WHERE field_id = ? AND record_id = ?", [
      called('Key number').id,
      key!.record_id,
    ])
    expect((await cast.coordinator.must(search, { q: 'lamprey seven' })).rows).toEqual([expect.objectContaining({ type: 'place', id: key!.record_id })])
  })
})

test('a field of requests stands in the words of a mail, and on the timeline of its request', async () => {
  const words = { siteId: 1, occasion: 'message' as const, subject: '{number} {summary}', text: 'Visitors come on {Visitors on}. {link}' }
  expect((await admin.call(saveWording, { ...words, text: 'On {Visitors}. {link}' })).problem.reasons![0]!.sentence).toContain('{Visitors on}')
  await admin.must(saveWording, words)
  expect((await admin.must(previewWording, words)).text).not.toContain('{Visitors on}')
  const request = await report(cast, { email: 'visitor@reporter.example' })
  await cast.coordinator.must(editOwn, { kind: 'requests', id: request.id, version: 0, [nameOf('Visitors on')]: '2026-12-04' })
  const { entries } = await cast.coordinator.must(readRequestTimeline, { id: request.id })
  expect(entries.some((entry) => entry.kind === 'own.edit')).toBe(true)
  await cast.coordinator.must(writeComment, { id: request.id, kind: 'message', text: 'Soon.' })
  const mail = await house.mail('visitor@reporter.example', (one) => one.text.includes('Visitors come on'))
  expect(mail.text).toContain('Visitors come on 4 December 2026.')
})
