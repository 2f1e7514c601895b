import { randomBytes } from 'node:crypto'
import { addDocument } from '#contract/documents'
import { addNote, finishJob, stopClock, switchStint } from '#contract/field'
import { listOrders, readOrder } from '#contract/orders'
import { Client, castAt, orderAt } from '../kit'
import type { Cast, House, Running } from '../kit'
import { By, Person } from '../kit/browser'
import { median } from './table'
import type { Measure } from './table'

const JOBS = 12
const DOCUMENT_BYTES = 500_000
const SLOWER = 4
const PHONES = 50
const ACTS = 40

/** Rounds without a network, how much of a day lies on the phone, and fifty phones that come back at once. */
export async function measureRounds(house: House, server: Running): Promise<Measure[]> {
  const cast = await castAt(server.url)
  const carried = await carriedDay(cast, server)
  return [...carried, ...(await allAtOnce(house, server, cast))]
}

async function carriedDay(cast: Cast, server: Running): Promise<Measure[]> {
  for (let job = 0; job < JOBS; job++) {
    const { id } = await orderAt(cast, 'dispatched')
    await cast.coordinator.call(
      addDocument,
      { on: 'orders', id, kind: 'other', name: `plan-${job}.txt`, audience: 'technician' },
      { file: new Blob([randomBytes(DOCUMENT_BYTES / 2).toString('hex')]) },
    )
  }
  const phone = await (await Person.at(server.url, 'phone')).signIn('bram.oyelaran')
  try {
    await phone.load('/rounds')
    await phone.until('everything is carried', () =>
      phone.driver.executeAsyncScript<boolean>(
        "const done = arguments[arguments.length - 1]; navigator.serviceWorker.ready.then(({ active }) => done(active.state === 'activated' && document.documentElement.dataset.carried === 'yes'))",
      ),
    )
    const used = await phone.driver.executeAsyncScript<number>('const done = arguments[0]; navigator.storage.estimate().then(({ usage }) => done(usage))')
    const driver = phone.driver
    await driver.setNetworkConditions({ offline: true, latency: 0, download_throughput: 0, upload_throughput: 0 })
    await phone.slow(SLOWER)
    await driver.sendDevToolsCommand('Page.addScriptToEvaluateOnNewDocument', {
      source:
        "new MutationObserver(() => { if (!window.listed && document.querySelector('a.job')) window.listed = performance.now() }).observe(document, { childList: true, subtree: true })",
    })
    const took: number[] = []
    for (let n = 0; n < 5; n++) {
      await phone.driver.get('about:blank')
      await phone.load('/rounds')
      await phone.find(By.css('a.job'))
      took.push(await phone.driver.executeScript<number>('return window.listed'))
    }
    return [
      {
        what: `a day of ${JOBS} jobs with documents on the device, programs and all`,
        measured: `${(used / 1e6).toFixed(1)} MB`,
        limit: 'under 15 MB',
        kept: used < 15e6,
      },
      {
        what: `opened without network, processor ${SLOWER} times slower: list of jobs`,
        measured: `${(median(took) / 1000).toFixed(2)} s (slowest ${(Math.max(...took) / 1000).toFixed(2)})`,
        limit: 'in under 2 s',
        kept: median(took) < 2_000,
      },
    ]
  } finally {
    await phone.quit()
  }
}

/** Technicians of the measurement alone, each signed in on a phone, with two jobs each. */
async function crew(house: House, server: Running, cast: Cast): Promise<{ phone: Client; visits: number[]; orders: number[] }[]> {
  const [{ hash }] = (await house.rows<{ hash: string }>('SELECT password_hash AS hash FROM account LIMIT 1')) as [{ hash: string }]
  const [{ shift, team }] = (await house.rows<{ shift: unknown; team: number }>('SELECT shift, team_id AS team FROM technician WHERE id = 1')) as [
    { shift: unknown; team: number },
  ]
  const crew: { phone: Client; visits: number[]; orders: number[] }[] = []
  for (let n = 0; n < PHONES; n++) {
    const email = `phone-${n}@skerry.example`
    await house.rows("INSERT INTO person (site_id, name, email, search_text) VALUES (1, ?, ?, '')", [`Phone ${n}`, email])
    await house.rows('INSERT INTO account (person_id, email, password_hash) SELECT id, email, ? FROM person WHERE email = ?', [hash, email])
    await house.rows("INSERT INTO account_role (account_id, role, site_id) SELECT id, 'technician', 1 FROM account WHERE email = ?", [email])
    await house.rows('INSERT INTO technician (account_id, team_id, shift, step_minutes, call_out_minutes) SELECT id, ?, ?, 1, 0 FROM account WHERE email = ?', [
      team,
      JSON.stringify(shift),
      email,
    ])
    const [{ id }] = (await house.rows<{ id: number }>('SELECT t.id FROM technician t JOIN account a ON a.id = t.account_id WHERE a.email = ?', [email])) as [
      { id: number },
    ]
    await house.rows("INSERT INTO technician_rate (technician_id, from_at, normal_per_hour, overtime_per_hour) VALUES (?, '2020-01-01', 4000, 6000)", [id])
    const jobs = [await orderAt(cast, 'dispatched', { technicianIds: [id] }), await orderAt(cast, 'dispatched', { technicianIds: [id] })]
    crew.push({
      phone: await new Client(server.url).signIn(`phone-${n}`),
      visits: jobs.map(({ visitId }) => visitId),
      orders: jobs.map((job) => job.id),
    })
  }
  return crew
}

/** One act after another as an outbox sends them, each under its own key with its moment; how a job stands then is asked for with the last. */
async function comeBack({ phone, visits }: { phone: Client; visits: number[] }, n: number): Promise<number> {
  const start = Date.UTC(2026, 10, 23, 6)
  let [minute, refused] = [0, 0]
  const headers = { Prefer: 'return=minimal' }
  const send = async (run: (happenedAt: string, key: string) => Promise<{ status: number }>) => {
    const happenedAt = new Date(start + 60_000 * minute++).toISOString()
    const { status } = await run(happenedAt, `phone-${n}-act-${String(minute).padStart(6, '0')}`)
    if (status !== 200) refused++
  }
  for (const visitId of visits) {
    for (let round = 0; round < 6; round++) {
      const kind = round % 2 ? 'travel' : 'work'
      await send((happenedAt, key) => phone.call(switchStint, { visitId, kind, happenedAt }, { key, headers }))
      for (const text of ['Seen to', 'Measured'])
        await send((happenedAt, key) => phone.call(addNote, { visitId, text: `${text} ${minute}`, happenedAt }, { key, headers }))
    }
    await send((happenedAt, key) => phone.call(stopClock, { visitId, happenedAt }, { key, headers }))
    await send((happenedAt, key) => phone.call(finishJob, { visitId, result: 'done', symptom: 'Noisy', cause: 'Wear', fix: 'Cleaned', happenedAt }, { key }))
  }
  return refused
}

async function allAtOnce(house: House, server: Running, cast: Cast): Promise<Measure[]> {
  const phones = await crew(house, server, cast)
  const ask = async () => {
    const began = performance.now()
    await cast.coordinator.must(listOrders, { station: 'dispatch' })
    return performance.now() - began
  }
  const idle: number[] = []
  for (let n = 0; n < 40; n++) idle.push(await ask())
  const busy: number[] = []
  let back = false
  const watching = (async () => {
    while (!back) {
      busy.push(await ask())
      await new Promise((resolve) => setTimeout(resolve, 50))
    }
  })()
  const began = performance.now()
  const refused = (await Promise.all(phones.map(comeBack))).reduce((sum, one) => sum + one, 0)
  const took = performance.now() - began
  back = true
  await watching
  const [{ held }] = (await house.rows<{ held: number }>(
    "SELECT COUNT(*) AS held FROM event JOIN visit ON visit.id = event.visit_id JOIN technician ON technician.id = visit.technician_id JOIN account ON account.id = technician.account_id WHERE account.email LIKE 'phone-%' AND event.kind IN ('field.stint', 'field.note', 'field.stop', 'field.leave')",
  )) as [{ held: number }]
  const done = await cast.coordinator.must(readOrder, { id: phones[0]!.orders[0]! })
  const ratio = median(busy) / median(idle)
  return [
    {
      what: `${PHONES} phones come back with ${ACTS} acts each`,
      measured: `${(took / 1000).toFixed(1)} s, ${held} of ${PHONES * ACTS} held, ${refused} refused, ${done.state}`,
      limit: 'every act once, within 30 s',
      kept: took < 30_000 && Number(held) === PHONES * ACTS && refused === 0,
    },
    {
      what: 'the queue meanwhile',
      measured: `${median(busy).toFixed(1)} ms, ${ratio.toFixed(1)} x idle (${median(idle).toFixed(1)} ms)`,
      limit: 'within 3 x idle',
      kept: ratio <= 3,
    },
  ]
}
