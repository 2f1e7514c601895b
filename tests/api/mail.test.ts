import { createTransport } from 'nodemailer'
import { SMTPServer } from 'smtp-server'
import { dispatchOrder, listCandidates } from '#contract/dispatch'
import { editOrder, readOrder, submitOrder } from '#contract/orders'
import { accepted, approved, castAt, complete, House, report, version } from '../kit'
import type { Cast, Running } from '../kit'

/** Mail leaves by SMTP and by events: what is said, to whom, and what happens when the relay is down. */
let house: House
let server: Running
let cast: Cast
let relay: SMTPServer
let down = true
/** How long it takes to take a mail. */
let slowMs = 0
const taken: string[] = []

beforeAll(async () => {
  relay = new SMTPServer({
    authOptional: true,
    disabledCommands: ['STARTTLS', 'AUTH'],
    onRcptTo: (address, _session, done) =>
      done(down ? new Error('The relay is closed for now') : address.address.startsWith('wrong') ? new Error('No such box') : null),
    onData(stream, session, done) {
      stream.resume()
      stream.once('end', () => {
        taken.push(...session.envelope.rcptTo.map((one) => one.address))
        setTimeout(done, slowMs)
      })
    },
  })
  await new Promise<void>((resolve) => relay.listen(0, '127.0.0.1', resolve))
  house = await House.open('mail', { env: { EVRIX_SMTP_URL: `smtp://127.0.0.1:${(relay.server.address() as { port: number }).port}` } })
  server = await house.start()
  cast = await castAt(server.url)
})
afterAll(async () => {
  await house?.close()
  await new Promise<void>((resolve) => relay.close(resolve))
})

const mailTo = (to: string) =>
  house.rows<{ state: string; attempts: number; subject: string; text: string; last_error: string | null }>('SELECT * FROM mail WHERE `to` = ? ORDER BY id', [
    to,
  ])
async function until(what: string, isSo: () => Promise<boolean>): Promise<void> {
  for (let n = 0; n < 120; n++) {
    if (await isSo()) return
    await new Promise((resolve) => setTimeout(resolve, 100))
  }
  throw new Error(what)
}

test('a relay that is down loses no mail: it is tried again, later each time, and goes out once', async () => {
  const { number } = await report(cast, { email: 'patient@reporter.example' })
  await until('never tried twice', async () => ((await mailTo('patient@reporter.example'))[0]?.attempts ?? 0) >= 2)
  const [waiting] = await mailTo('patient@reporter.example')
  expect(waiting).toMatchObject({ state: 'waiting' })
  expect(waiting!.last_error).toContain('closed for now')
  down = false
  await until('never sent', async () => (await mailTo('patient@reporter.example'))[0]!.state === 'sent')
  expect(taken.filter((address) => address === 'patient@reporter.example')).toHaveLength(1)
  expect(waiting!.subject).toBe(`${number} The left light over the sink is out`)
})

test('an address that is never taken does not hold up the others', async () => {
  await report(cast, { email: 'wrong@reporter.example' })
  await report(cast, { email: 'right@reporter.example' })
  await until('the right one waits', async () => (await mailTo('right@reporter.example'))[0]?.state === 'sent')
  await until('no error is kept', async () => (await mailTo('wrong@reporter.example'))[0]?.last_error?.includes('No such box') ?? false)
  expect((await mailTo('wrong@reporter.example'))[0]!.state).toBe('waiting')
})

test('the approver’s mail holds the whole text, the cost and who pays; nobody whose limit is too low gets it', async () => {
  const { id: requestId } = await report(cast)
  const id = await accepted(cast, requestId)
  await cast.coordinator.must(editOrder, {
    id,
    version: await version(cast, id),
    ...complete,
    estimateMinor: 900_000,
    description: 'All of it: wiring, tubes and the ceiling.',
  })
  await cast.coordinator.must(submitOrder, { id, version: await version(cast, id) })
  const { number } = await cast.coordinator.must(readOrder, { id })
  const about = async (to: string) => (await mailTo(to)).filter((mail) => mail.subject.includes(number))
  await until('nobody is asked', async () => (await about('osric.vane@skerry.example')).length === 1)
  const [mail] = await about('osric.vane@skerry.example')
  for (const words of ['All of it: wiring, tubes and the ceiling.', 'Estimate: 9,000.00 EUR', '100 %', `/desk/planning/order/${id}`])
    expect(mail!.text).toContain(words)
  // The second approver is asked only as the deputy of one who is away, and may then say so.
  const [away] = await house.rows<{ n: number }>('SELECT COUNT(*) AS n FROM deputy WHERE from_at <= ? AND until_at > ?', [
    '2026-11-23 10:30:00',
    '2026-11-23 10:30:00',
  ])
  expect((await about('ines.ferrall@skerry.example')).length).toBe(away!.n ? 1 : 0)
})

test('the technician and the vendor hear where, when, who lets them in, and no money', async () => {
  for (const [who, address] of [
    [{ technicianIds: [1] }, 'bram.oyelaran@skerry.example'],
    [{ vendorId: 8 }, 'jobs@standby-sound-power.example'],
  ] as const) {
    const { id: requestId } = await report(cast)
    const id = await accepted(cast, requestId)
    await cast.coordinator.must(editOrder, {
      id,
      version: await version(cast, id),
      access: 'Ring twice at the side door.',
      noteForWorker: 'Bring the long ladder.',
    })
    await approved(cast, id)
    const span = { start: '2026-11-24T09:00:00.000Z', end: '2026-11-24T10:00:00.000Z' }
    expect((await cast.coordinator.must(listCandidates, { orderId: id, ...span })).technicians.length).toBeGreaterThan(0)
    await cast.coordinator.must(dispatchOrder, { id, version: await version(cast, id), ...(who as { vendorId: number }), ...span })
    const { number } = await cast.coordinator.must(readOrder, { id })
    await until('not told', async () => (await mailTo(address)).some((mail) => mail.subject.includes(number)))
    const mail = (await mailTo(address)).find((one) => one.subject.includes(number))!
    expect(mail.subject).toContain('Tue 24 Nov, 09:00 to 10:00')
    for (const words of ['Ring twice at the side door.', 'Bring the long ladder.', 'Aoife Ashdown', 'Where:']) expect(mail.text).toContain(words)
    expect(mail.text).not.toMatch(/EUR|200\.00|[Ee]stimate/)
  }
})

test('a server that is ended among many mails ends after the one on its way; what waits goes out once, by whoever comes next', async () => {
  slowMs = 150
  const [sample] = await mailTo('right@reporter.example')
  const many = Array.from({ length: 18 }, (_, n) => `many-${n}@reporter.example`)
  await house.rows(
    `INSERT INTO mail (\`to\`, subject, text, occasion, state, next_at) VALUES ${many.map(() => '(?, ?, ?, ?, ?, ?)').join()}`,
    many.flatMap((to) => [to, sample!.subject, sample!.text, 'job', 'waiting', '2026-11-23 10:30:00']),
  )
  const gone = () => taken.filter((address) => address.startsWith('many-'))
  await until('the first is never sent', () => Promise.resolve(gone().length >= 2))
  await server.stop()
  expect(gone().length).toBeLessThan(many.length)
  const [noted] = await house.rows<{ n: number }>("SELECT COUNT(*) AS n FROM mail WHERE `to` LIKE 'many-%' AND state = 'sent'")
  expect(Number(noted!.n)).toBe(gone().length)
  slowMs = 0
  server = await house.start()
  await until('the rest is never sent', () => Promise.resolve(gone().length >= many.length))
  expect(gone().toSorted()).toEqual(many.toSorted())
})

test('the relay is a real one: what it takes can be sent by any mail program', async () => {
  const { port } = relay.server.address() as { port: number }
  const sent = await createTransport({ host: '127.0.0.1', port, ignoreTLS: true }).sendMail({ from: 'a@x.example', to: 'b@x.example', text: 'x' })
  expect(sent.accepted).toEqual(['b@x.example'])
})
