import { mkdtempSync, readdirSync, readFileSync } from 'node:fs'
import { spawn } from 'node:child_process'
import { tmpdir } from 'node:os'
import path from 'node:path'
import { stopClock, switchStint, readJob } from '#contract/field'
import { listOrders, readOrder } from '#contract/orders'
import { listNotices } from '#contract/people'
import { reportRequest } from '#contract/requests'
import { listUntold, readHealth, tellAgain } from '#contract/setup'
import { approved, accepted, castAt, Client, dispatched, House, orderAt, report } from '../kit'
import { startDatabase } from '../../scripts/kit/database.mjs'
import { identityOf, keepRunning, runs } from '../../scripts/kit/processes.mjs'

/** Parts that go away: the database killed or stopped, the server killed, mails that cannot be written, clocks that lie. */
const waitFor = async (what: () => Promise<boolean> | boolean, ms = 30_000) => {
  for (const until = Date.now() + ms; Date.now() < until;) {
    if (await what()) return
    await new Promise((resolve) => setTimeout(resolve, 100))
  }
  throw new Error('It did not happen in time.')
}

/** Whether all threads of a process have stopped: on a busy machine one goes on a while after the signal. */
const stands = (pid: number) =>
  readdirSync(`/proc/${pid}/task`).every((thread) => /^State:\s+T/m.test(readFileSync(`/proc/${pid}/task/${thread}/status`, 'utf8')))

describe('while the database is away', () => {
  let database: Awaited<ReturnType<typeof startDatabase>>
  let house: House
  const timed = async (what: () => Promise<{ status: number; headers: Headers; problem?: { detail: string } }>) => {
    const began = performance.now()
    const { status, headers, problem } = await what()
    return { status, retry: headers.get('retry-after'), ms: performance.now() - began, detail: problem?.detail }
  }

  beforeAll(async () => {
    house = await House.open('away', { byPort: true })
    database = house.ownDatabase!
  })
  afterAll(async () => {
    if (runs(database.pid, null)) process.kill(database.pid, 'SIGCONT')
    await house?.close()
  })

  test('killed or stopped, every endpoint answers 503 within 5 s, and goes on when it is back without a restart', async () => {
    const server = await house.start()
    const desk = await new Client(server.url).signIn('maren.quill')
    const told = { site: 'SKE', placeId: 20, summary: 'While it was away', description: 'x' }
    const asked = () => [
      timed(() => desk.call(listOrders, {})),
      timed(() => desk.call(readOrder, { id: 1 })),
      timed(() => desk.call(reportRequest, told)),
      timed(() => desk.call(readHealth, {})),
      timed(async () => {
        const reply = await fetch(`${server.url}/open311/v2/services.json?jurisdiction_id=SKE`)
        return { status: reply.status, headers: reply.headers }
      }),
    ]
    // Stopped: it takes connections and never answers.
    process.kill(database.pid, 'SIGSTOP')
    await waitFor(() => stands(database.pid))
    for (const round of [1, 2])
      for (const { status, retry, ms } of await Promise.all(asked())) expect([round, status, Number(retry) > 0, ms < 5_000]).toEqual([round, 503, true, true])
    process.kill(database.pid, 'SIGCONT')
    await waitFor(async () => (await desk.call(listOrders, {})).status === 200, 10_000)

    const { port } = database
    process.kill(database.pid, 'SIGKILL')
    await database.ended
    const replies = await Promise.all(asked())
    for (const { status, ms } of replies) expect([status, ms < 5_000]).toEqual([503, true])
    expect(replies[2]!.detail).toContain('What you typed is still on the screen')
    database = house.ownDatabase = await startDatabase(house.databaseFolder, { quick: true, port })
    await waitFor(async () => (await desk.call(listOrders, {})).status === 200, 15_000)
    expect(await house.rows("SELECT id FROM request WHERE summary = 'While it was away'")).toEqual([])
    expect((await desk.call(reportRequest, told)).status).toBe(200)
  })
})

describe('mails that cannot be written', () => {
  let house: House
  beforeAll(async () => (house = await House.open('untold')))
  afterAll(() => house?.close())

  test('hold up nobody: the event is set aside after three tries, shown to the administrator, and can be sent again', async () => {
    const server = await house.start()
    const cast = await castAt(server.url)
    const admin = await new Client(server.url).signIn('wendeline.stroud')
    // An event as no command writes it: its mail asks for an order that is not there.
    const broken =
      "INSERT INTO event (at, kind, site_id, actor_name, details) VALUES ('2026-11-23 10:31:00', 'order.dispatch', 1, 'Nobody', '{\"technicianIds\":[1]}')"
    await house.rows(broken)
    const { id } = await report(cast, { summary: 'After the broken one' })
    await waitFor(async () => (await house.rows('SELECT id FROM event WHERE request_id = ? AND seq IS NULL', [id])).length === 0)
    await waitFor(async () => (await house.rows("SELECT id FROM mail WHERE request_id = ? AND occasion = 'received'", [id])).length === 1)
    await waitFor(async () => (await admin.must(listUntold, {})).rows.length === 1)
    const [row] = (await admin.must(listUntold, {})).rows
    expect([row!.kind, row!.attempts]).toEqual(['order.dispatch', 3])
    expect((await admin.must(listNotices, {})).rows[0]!.sentence).toContain('set aside')
    // Once the reason is gone, it is told after all.
    const order = await orderAt(cast, 'dispatched')
    await house.rows(
      "UPDATE event SET order_id = ?, details = JSON_OBJECT('technicianIds', JSON_ARRAY(1), 'start', '2026-11-23T11:00:00Z', 'end', '2026-11-23T12:00:00Z') WHERE id = ?",
      [order.id, row!.id],
    )
    expect((await admin.must(tellAgain, { id: row!.id })).rows).toEqual([])
    await waitFor(async () => (await house.rows('SELECT id FROM mail WHERE event_id = ?', [row!.id])).length > 0)
    expect(await house.rows('SELECT event_id FROM untold_event')).toEqual([])
    expect((await admin.call(tellAgain, { id: row!.id })).status).toBe(404)
    await server.stop()
  })
})

describe('clocks', () => {
  let house: House
  beforeAll(async () => (house = await House.open('clocks')))
  afterAll(() => house?.close())

  test('two started at once: one runs, the other is told where; set back, a stint is nought; forgotten, its end is asked for', async () => {
    const server = await house.start()
    const cast = await castAt(server.url)
    const jobs = await Promise.all(
      [0, 1].map(async () => {
        const order = await accepted(cast, (await report(cast)).id)
        await approved(cast, order)
        return dispatched(cast, order)
      }),
    )
    const started = await Promise.all(jobs.map((visitId) => cast.technician.call(switchStint, { visitId, kind: 'work' })))
    expect(started.map((reply) => reply.status).sort()).toEqual([200, 422])
    expect(started.find((reply) => reply.status === 422)!.problem.reasons![0]!.code).toBe('clock_elsewhere')
    const visitId = jobs[started.findIndex((reply) => reply.status === 200)]!

    await house.rows("UPDATE stint SET start_at = '2026-11-23 18:00:00' WHERE end_at IS NULL AND visit_id = ?", [visitId])
    const back = await cast.technician.must(stopClock, { visitId })
    expect(back.stints.at(-1)!.minutes).toBe(0)

    await cast.technician.must(switchStint, { visitId, kind: 'work' })
    await house.rows("UPDATE stint SET start_at = '2026-10-14 08:00:00' WHERE end_at IS NULL AND visit_id = ?", [visitId])
    for (const input of [{}, { stoppedAt: '2026-10-14T07:59:00Z' }, { stoppedAt: '2026-11-20T08:00:00Z' }, { stoppedAt: '2027-01-01T00:00:00Z' }])
      expect((await cast.technician.call(stopClock, { visitId, ...input })).problem.reasons![0]!.field).toBe('stoppedAt')
    expect((await cast.technician.call(switchStint, { visitId, kind: 'travel' })).problem.reasons![0]!.code).toBe('clock_forgotten')
    const stopped = await cast.technician.must(stopClock, { visitId, stoppedAt: '2026-10-14T10:00:00Z' })
    expect(stopped.running).toBeNull()
    expect((await cast.technician.must(readJob, { visitId })).stints.map((stint) => stint.minutes).sort()).toEqual([0, 120])
    await server.stop()
  })
})

describe('a part that ends by itself', () => {
  const failing = (lives: number[]) => {
    let starts = 0
    return {
      starts: () => starts,
      start: () => {
        const life = lives[starts++] ?? 1
        if (life < 0) return Promise.reject(new Error('It did not start.'))
        return Promise.resolve({ stop: () => Promise.resolve(), ended: new Promise<number>((resolve) => setTimeout(() => resolve(1), life)) })
      },
    }
  }

  test('is started again, and given up with a clear word after ten times in a row', async () => {
    const words = jest.spyOn(console, 'error').mockImplementation(() => undefined)
    const part = failing([1, 1, -1, -1])
    const sentence = await new Promise<string>((resolve) => void keepRunning('The server', part.start, resolve, { pauseMs: 1 }))
    expect(sentence).toContain('ended 10 times in a row and is not started again')
    expect(part.starts()).toBe(11)
    words.mockRestore()
  })
})

/** `npm start` as its user would lose it. */
describe('npm start', () => {
  const folder = mkdtempSync(path.join(process.env.EVRIX_TEST_FOLDER ?? tmpdir(), 'lost-'))
  const root = process.env.EVRIX_ROOT ?? process.cwd()
  async function start() {
    const child = spawn(process.execPath, ['scripts/start.mjs'], {
      cwd: root,
      env: { ...process.env, EVRIX_DATABASE_URL: '', EVRIX_DATA_DIR: folder, PORT: '0', EVRIX_LOG: 'fatal' },
      stdio: ['ignore', 'pipe', 'ignore'],
    })
    const ended = new Promise<number | null>((resolve) => child.once('exit', resolve))
    let said = ''
    child.stdout.on('data', (chunk: Buffer) => (said += chunk.toString()))
    await waitFor(() => said.includes('the data stays.') || child.exitCode !== null, 120_000)
    if (child.exitCode !== null) throw new Error(`npm start ended with ${child.exitCode}: ${said}`)
    return { child, ended, url: /The Desk\s+(\S+)/.exec(said)![1]! }
  }
  const database = () => JSON.parse(readFileSync(path.join(folder, 'mariadb.json'), 'utf8')) as { pid: number; identity: string }
  /** Processes whose parent this is. */
  const childrenOf = (pid: number) =>
    readdirSync('/proc')
      .filter((name) => /^\d+$/.test(name))
      .filter((name) => {
        try {
          return readFileSync(`/proc/${name}/stat`, 'utf8').split(') ')[1]!.split(' ')[1] === String(pid)
        } catch {
          return false
        }
      })
      .map((name) => ({ pid: Number(name), command: readFileSync(`/proc/${name}/cmdline`, 'utf8') }))
  const answers = (url: string) =>
    fetch(`${url}/api/health`).then(
      (reply) => reply.status === 200,
      () => false,
    )

  test('brings back what was killed, leaves nothing behind when it is killed itself, and starts again over what was left', async () => {
    const first = await start()
    process.kill(database().pid, 'SIGKILL')
    await waitFor(async () => !(await answers(first.url)))
    await waitFor(() => answers(first.url))
    const server = childrenOf(first.child.pid!).find((one) => one.command.includes('main.js'))!
    process.kill(server.pid, 'SIGKILL')
    await waitFor(async () => !(await answers(first.url)), 5_000).catch(() => undefined)
    await waitFor(() => answers(first.url))

    // Killed without a chance to say goodbye.
    const left = [...childrenOf(first.child.pid!).map((one) => ({ pid: one.pid, identity: identityOf(one.pid) })), database()]
    first.child.kill('SIGKILL')
    await first.ended
    await waitFor(() => left.every((one) => !runs(one.pid, one.identity)))

    // The same with the database held fast, so that it outlives its owner: the next start ends it.
    const second = await start()
    expect(await answers(second.url)).toBe(true)
    const held = database()
    process.kill(held.pid, 'SIGSTOP')
    second.child.kill('SIGKILL')
    await second.ended
    setTimeout(() => runs(held.pid, held.identity) && process.kill(held.pid, 'SIGCONT'), 2_000)
    const third = await start()
    expect(await answers(third.url)).toBe(true)
    expect(runs(held.pid, held.identity)).toBe(false)

    // One who starts a second from the same folder is told so; a closed terminal ends the first.
    await expect(start()).rejects.toThrow('npm start ended with 1')
    const last = database()
    third.child.kill('SIGHUP')
    expect(await third.ended).toBe(0)
    expect(runs(last.pid, last.identity)).toBe(false)
  })
})
