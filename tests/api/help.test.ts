import sharp from 'sharp'
import { addArticleFile, readHelp, readHelpFile, saveArticle, saveBulletin } from '#contract/help'
import { readAround, readRequest } from '#contract/requests'
import { castAt, Client, House, report } from '../kit'
import type { Cast, Running } from '../kit'

/** Notices and help articles: written at the desk, read by whoever reports. */
let house: House
let server: Running
let cast: Cast

beforeAll(async () => {
  house = await House.open('help')
  server = await house.start()
  cast = await castAt(server.url)
})
afterAll(() => house?.close())

const placeId = async (code: string) => (await house.rows<{ id: number }>('SELECT id FROM place WHERE code = ?', [code]))[0]!.id
const notice = async (codes: string[]) => ({
  siteId: 1,
  kind: 'closure' as const,
  title: 'Kelp House stairs closed',
  body: '<p>Use the lift.</p>',
  startsAt: '2026-11-23T08:00:00Z',
  endsAt: '2026-11-24T08:00:00Z',
  placeIds: await Promise.all(codes.map(placeId)),
})
const titlesAt = async (code: string) => (await cast.anybody.must(readAround, { site: 'SKE', placeId: await placeId(code) })).bulletins.map((one) => one.title)

describe('notices', () => {
  test('show at the places they cover and below, on the Counter and on the Sheet, until withdrawn', async () => {
    const { bulletins } = await cast.coordinator.must(saveBulletin, await notice(['KEL']))
    const mine = bulletins.find((one) => one.title.startsWith('Kelp'))!
    expect(await titlesAt('KEL-104')).toContain('Kelp House stairs closed')
    expect(await titlesAt('TID-104')).not.toContain('Kelp House stairs closed')
    const sent = await report(cast, { placeId: await placeId('KEL-104') })
    expect((await cast.coordinator.must(readRequest, { id: sent.id })).bulletins.map((one) => one.id)).toContain(mine.id)
    await cast.coordinator.must(saveBulletin, { ...(await notice(['KEL'])), id: mine.id, version: mine.version, withdrawn: true })
    expect(await titlesAt('KEL-104')).not.toContain('Kelp House stairs closed')
  })

  test('one that is over shows nowhere, one of next week does, one of next month not yet', async () => {
    const base = await notice(['GRD'])
    await cast.coordinator.must(saveBulletin, { ...base, title: 'Over', startsAt: '2026-11-20T08:00:00Z', endsAt: '2026-11-23T10:00:00Z' })
    await cast.coordinator.must(saveBulletin, { ...base, title: 'Next week', startsAt: '2026-11-30T08:00:00Z', endsAt: '2026-12-01T08:00:00Z' })
    await cast.coordinator.must(saveBulletin, { ...base, title: 'Next month', startsAt: '2026-12-30T08:00:00Z', endsAt: '2026-12-31T08:00:00Z' })
    const titles = await titlesAt('GRD')
    expect(titles).toContain('Next week')
    expect(titles).not.toContain('Over')
    expect(titles).not.toContain('Next month')
  })

  test('ends after it begins, at places of its site; two who edit at once get a conflict', async () => {
    const base = await notice(['KEL'])
    const early = await cast.coordinator.call(saveBulletin, { ...base, endsAt: base.startsAt })
    expect(early.problem.reasons![0]!.field).toBe('endsAt')
    const elsewhere = await cast.coordinator.call(saveBulletin, { ...base, placeIds: [await placeId('HAT-01')] })
    expect(elsewhere.problem.reasons![0]!.field).toBe('placeIds')
    const [first] = (await cast.coordinator.must(readHelp, {})).bulletins
    const entry = { ...base, id: first!.id, version: first!.version }
    await cast.coordinator.must(saveBulletin, entry)
    expect((await cast.coordinator.call(saveBulletin, entry)).status).toBe(409)
  })
})

describe('help articles', () => {
  test('what could run or load from elsewhere is taken out before it is kept', async () => {
    const body =
      '<h2>Try this</h2><p onclick="x()">Push <strong>once</strong>.<script>alert(1)</script></p><img src="https://elsewhere.example/p.png"><a href="javascript:alert(1)">here</a><a href="https://ok.example/">there</a><iframe src="/"></iframe>'
    const { articles } = await cast.coordinator.must(saveArticle, { siteId: 1, categoryId: 1, title: 'Switches', body })
    const kept = articles.find((one) => one.title === 'Switches')!.body
    expect(kept).toContain('<h2>Try this</h2>')
    expect(kept).toContain('<strong>once</strong>')
    expect(kept).toContain('https://ok.example/')
    expect(kept).not.toMatch(/script|onclick|elsewhere|iframe/)
  })

  test('is offered for words that fit, closest first, and for its category', async () => {
    const around = (words: string, categoryId?: number) => cast.anybody.must(readAround, { site: 'SKE', words, categoryId })
    expect((await around('the freezer alarm is on')).articles[0]!.title).toContain('freezer alarm')
    expect((await around('the kettle')).articles).toEqual([])
    const [water] = await house.rows<{ id: number }>("SELECT id FROM category WHERE code = 'water'")
    expect((await around('something', water!.id)).articles.map((one) => one.title)).toContain('The drain in the shower is slow')
  })

  test('pictures and documents belong to it, are public while it is, and gone when it is withdrawn', async () => {
    const { articles } = await cast.coordinator.must(saveArticle, { siteId: 1, categoryId: null, title: 'With files', body: '<p>See below.</p>' })
    const article = articles.find((one) => one.title === 'With files')!
    const photo = await sharp({ create: { width: 60, height: 40, channels: 3, background: '#1F7A7A' } })
      .png()
      .toBuffer()
    const picture = await cast.coordinator.must(addArticleFile, { id: article.id, name: 'switch.png' }, { file: new Blob([new Uint8Array(photo)]) })
    const list = await cast.coordinator.must(addArticleFile, { id: article.id, name: 'list.txt' }, { file: new Blob(['one\ntwo']) })
    expect([picture.kind, list.kind]).toEqual(['picture', 'document'])
    const saved = await cast.coordinator.must(saveArticle, {
      siteId: 1,
      categoryId: null,
      title: 'With files',
      id: article.id,
      version: article.version,
      body: `<p>See <img src="${picture.address}" alt="the switch"></p>`,
    })
    const now = saved.articles.find((one) => one.id === article.id)!
    expect(now.body).toContain(picture.address)
    expect(now.documents).toMatchObject([{ name: 'list.txt' }])
    expect((await cast.anybody.call(readHelpFile, { id: list.id })).status).toBe(200)
    const download = await fetch(server.url + list.address)
    expect(download.headers.get('content-disposition')).toMatch(/^attachment/)
    await cast.coordinator.must(saveArticle, {
      siteId: 1,
      categoryId: null,
      title: 'With files',
      body: now.body,
      id: now.id,
      version: now.version,
      withdrawn: true,
    })
    expect((await cast.anybody.call(readHelpFile, { id: list.id })).status).toBe(404)
  })

  test('an attachment of a request is not to be had by the address of help files', async () => {
    const [other] = await house.rows<{ id: number }>('SELECT id FROM attachment WHERE article_id IS NULL LIMIT 1')
    if (other) expect((await cast.anybody.call(readHelpFile, { id: other.id })).status).toBe(404)
    expect((await (await new Client(server.url).signIn('bram.oyelaran')).call(readHelp, {})).status).toBe(403)
    expect((await cast.approver.call(saveBulletin, await notice(['KEL']))).status).toBe(403)
  })
})
