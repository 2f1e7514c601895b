import {
  addAsset,
  agreeTransfer,
  askTransfer,
  editAsset,
  giveBackAsset,
  listTransfers,
  readAsset,
  refuseTransfer,
  retireAsset,
  withdrawTransfer,
} from '#contract/assets'
import { readPortraitTimeline } from '#contract/portraits'
import { Client, House } from '../kit'
import type { Running } from '../kit'

/** Assets going elsewhere: asked for by one, agreed by another, never in two places. */
let house: House
let server: Running
let maren: Client
let tobias: Client
/** Of the second site alone. */
let yusuf: Client
let mus: { site: number; place: number; code: string }

const one = async <Row>(sql: string, values: unknown[] = []) => (await house.rows<Row>(sql, values))[0]!
const placeId = async (code: string) => (await one<{ id: number }>('SELECT id FROM place WHERE code = ?', [code])).id

beforeAll(async () => {
  house = await House.open('transfers')
  const found = await one<{ site: number; place: number; code: string }>(
    "SELECT s.id AS site, p.id AS place, p.code FROM site s JOIN place p ON p.site_id = s.id WHERE p.kind = 'space' AND s.code <> 'SKE' ORDER BY p.id LIMIT 1",
  )
  mus = found
  const only = (name: string, siteId: number) =>
    house.rows("UPDATE account_role SET site_id = ? WHERE role <> 'technician' AND account_id = (SELECT id FROM account WHERE email = ?)", [
      siteId,
      `${name}@skerry.example`,
    ])
  await only('maren.quill', 1)
  await only('tobias.achterberg', 1)
  await only('yusuf.adeyemi-rourke', found.site)
  server = await house.start()
  const as = (name: string) => new Client(server.url).signIn(name)
  ;[maren, tobias, yusuf] = await Promise.all([as('maren.quill'), as('tobias.achterberg'), as('yusuf.adeyemi-rourke')])
})
afterAll(() => house?.close())

const pump = async (more: object = {}) =>
  maren.must(addAsset, { tag: `T-${Math.random().toString(36).slice(2, 9)}`, name: 'Transfer pump', owner: 'us', placeId: await placeId('GAN-202'), ...more })
const where = (id: number) =>
  one<{ site_id: number; place_id: number; path: string; parent_id: number | null }>('SELECT site_id, place_id, path, parent_id FROM asset WHERE id = ?', [id])

test('asked for, seen and agreed at the other site, where it then stands with its parts and the open work on it', async () => {
  const whole = await pump()
  const part = await pump({ parentId: whole.id })
  await house.rows(
    "UPDATE work_order SET asset_id = ?, place_id = (SELECT place_id FROM asset WHERE id = ?) WHERE id = (SELECT id FROM (SELECT id FROM work_order WHERE state = 'ready' LIMIT 1) x)",
    [part.id, part.id],
  )
  const [order] = await house.rows<{ id: number; team_id: number }>('SELECT id, team_id FROM work_order WHERE asset_id = ?', [part.id])
  expect(order!.team_id).not.toBeNull()
  expect((await yusuf.call(readAsset, { id: whole.id })).status).toBe(404)
  const asked = await maren.must(askTransfer, { assetId: whole.id, kind: 'move', toSiteId: mus.site, reason: 'The hatchery needs it' })
  expect(asked).toMatchObject({ state: 'asked', to: { place: null }, may: ['withdraw'] })
  const seen = (await yusuf.must(listTransfers, {})).rows.find((row) => row.id === asked.id)!
  expect(seen).toMatchObject({ askedBy: 'Maren Quill', may: ['agree', 'refuse'], asset: { tag: whole.tag } })
  await yusuf.hears((sentence) => sentence.includes(`asks for ${whole.tag} Transfer pump to go from`))
  expect((await yusuf.call(agreeTransfer, { id: asked.id, version: 1 })).problem.reasons).toEqual([expect.objectContaining({ field: 'placeId' })])
  expect((await yusuf.call(agreeTransfer, { id: asked.id, version: 1, placeId: await placeId('GAN-202') })).problem.reasons![0]!.field).toBe('placeId')
  const agreed = await yusuf.must(agreeTransfer, { id: asked.id, version: 1, placeId: mus.place })
  expect(agreed).toMatchObject({ state: 'done', decidedBy: 'Yusuf Adeyemi-Rourke', may: [] })
  for (const id of [whole.id, part.id]) expect(await where(id)).toMatchObject({ site_id: mus.site, place_id: mus.place })
  expect((await where(part.id)).path).toBe(`/${whole.id}/${part.id}/`)
  expect(await one('SELECT site_id, place_id, team_id, lead_id, supervisor_id FROM work_order WHERE id = ?', [order!.id])).toEqual({
    site_id: mus.site,
    place_id: mus.place,
    team_id: null,
    lead_id: null,
    supervisor_id: null,
  })
  expect((await yusuf.must(readAsset, { id: whole.id })).site!.id).toBe(mus.site)
  expect((await maren.call(readAsset, { id: whole.id })).status).toBe(404)
  const { entries } = await yusuf.must(readPortraitTimeline, { register: 'assets', id: whole.id })
  expect(entries.map((entry) => entry.kind)).toEqual(['asset.agree', 'asset.ask', 'register.add'])
})

test('nobody agrees to what they asked for themselves; refusing says why, withdrawing is for who asked', async () => {
  const { id } = await pump()
  const to = await placeId('GAN-204')
  const asked = await maren.must(askTransfer, { assetId: id, kind: 'move', toSiteId: 1, toPlaceId: to, reason: 'Nearer' })
  expect((await maren.call(agreeTransfer, { id: asked.id, version: 1 })).problem.reasons![0]!.code).toBe('not_yours')
  expect((await tobias.call(withdrawTransfer, { id: asked.id, version: 1 })).problem.reasons![0]!.code).toBe('not_yours')
  expect((await yusuf.call(agreeTransfer, { id: asked.id, version: 1 })).status).toBe(404)
  expect((await tobias.call(refuseTransfer, { id: asked.id, version: 1, reason: ' ' })).status).toBe(400)
  expect(await tobias.must(refuseTransfer, { id: asked.id, version: 1, reason: 'No room' })).toMatchObject({ state: 'refused', note: 'No room' })
  expect((await tobias.call(agreeTransfer, { id: asked.id, version: 2 })).problem.reasons![0]!.code).toBe('wrong_state')
  const again = await maren.must(askTransfer, { assetId: id, kind: 'move', toSiteId: 1, toPlaceId: to, reason: 'Nearer' })
  expect((await tobias.call(agreeTransfer, { id: again.id, version: 9 })).status).toBe(409)
  expect((await maren.must(withdrawTransfer, { id: again.id, version: 1 })).state).toBe('withdrawn')
  expect((await where(id)).place_id).toBe(await placeId('GAN-202'))
})

test('a loan comes back to where and to what it was part of; meanwhile nothing else is asked for it', async () => {
  const whole = await pump()
  const part = await pump({ parentId: whole.id })
  expect((await maren.call(askTransfer, { assetId: part.id, kind: 'loan', toSiteId: mus.site, reason: 'Spare' })).problem.reasons![0]!.field).toBe('returnBy')
  expect(
    (await maren.call(askTransfer, { assetId: part.id, kind: 'loan', toSiteId: mus.site, reason: 'Spare', returnBy: '2026-11-23' })).problem.reasons![0]!.code,
  ).toBe('return_past')
  const asked = await maren.must(askTransfer, { assetId: part.id, kind: 'loan', toSiteId: mus.site, reason: 'Spare', returnBy: '2026-12-24' })
  const lent = await yusuf.must(agreeTransfer, { id: asked.id, version: 1, placeId: mus.place })
  expect(lent).toMatchObject({ state: 'lent', returnBy: '2026-12-24', may: ['giveBack'] })
  expect(await where(part.id)).toMatchObject({ site_id: mus.site, parent_id: null, path: `/${part.id}/` })
  expect(
    (await yusuf.call(askTransfer, { assetId: part.id, kind: 'move', toSiteId: 1, reason: 'Back' })).problem.reasons!.map((reason) => reason.code),
  ).toContain('open')
  const { version } = await yusuf.must(readAsset, { id: part.id })
  expect((await yusuf.call(retireAsset, { id: part.id, version })).problem.reasons![0]!.code).toBe('going')
  expect((await maren.must(giveBackAsset, { id: asked.id, version: 2 })).state).toBe('returned')
  expect(await where(part.id)).toMatchObject({ site_id: 1, place_id: await placeId('GAN-202'), parent_id: whole.id, path: `/${whole.id}/${part.id}/` })
})

test('what is asked for is not moved by hand meanwhile, and may be again once it is decided', async () => {
  const it = await pump()
  const asked = await maren.must(askTransfer, { assetId: it.id, kind: 'move', toSiteId: mus.site, reason: 'Needed there' })
  const elsewhere = await placeId('GAN-204')
  const { version } = await maren.must(readAsset, { id: it.id })
  expect((await maren.call(editAsset, { id: it.id, version, placeId: elsewhere })).problem.reasons).toEqual([
    expect.objectContaining({ code: 'going', field: 'placeId' }),
  ])
  await maren.must(withdrawTransfer, { id: asked.id, version: 1 })
  expect((await maren.must(editAsset, { id: it.id, version, placeId: elsewhere })).placeId).toBe(elsewhere)
})

test('of two who ask at once one is first; what somebody is at work on does not go; a tag that is taken there is named', async () => {
  const { id, tag } = await pump()
  const to = { kind: 'move' as const, toSiteId: mus.site, reason: 'Both' }
  const replies = await Promise.all([maren.call(askTransfer, { assetId: id, ...to }), tobias.call(askTransfer, { assetId: id, ...to })])
  expect(replies.map((reply) => reply.status).sort()).toEqual([200, 422])
  const transfer = replies.find((reply) => reply.status === 200)!.body
  await house.rows("UPDATE work_order SET asset_id = ? WHERE id = (SELECT id FROM (SELECT id FROM work_order WHERE state = 'on_job' LIMIT 1) x)", [id])
  expect((await yusuf.call(agreeTransfer, { id: transfer.id, version: 1, placeId: mus.place })).problem.reasons![0]!.code).toBe('under_way')
  await house.rows('UPDATE work_order SET asset_id = NULL WHERE asset_id = ?', [id])
  await house.rows('INSERT INTO asset (site_id, place_id, tag, name, search_text) VALUES (?, ?, ?, ?, ?)', [mus.site, mus.place, tag, 'Other pump', ''])
  const refused = await yusuf.call(agreeTransfer, { id: transfer.id, version: 1, placeId: mus.place })
  expect(refused.problem.reasons![0]).toMatchObject({ code: 'taken', sentence: expect.stringContaining('Other pump') })
  expect(await where(id)).toMatchObject({ site_id: 1 })
  expect((await one<{ state: string }>('SELECT state FROM transfer WHERE id = ?', [transfer.id])).state).toBe('asked')
})
