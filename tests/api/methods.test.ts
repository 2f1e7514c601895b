import sharp from 'sharp'
import { dispatchOrder } from '#contract/dispatch'
import {
  addMethod,
  addStep,
  addStepPhoto,
  applyMethods,
  doStep,
  dropStep,
  editStep,
  keepAsMethod,
  listJobSteps,
  listMySteps,
  offerMethods,
  readMethod,
  readMethodContent,
  readOrderPlan,
  readPlanEstimate,
  retireMethod,
  savePlan,
  takeOffMethod,
  undoStep,
  writeMethod,
} from '#contract/methods'
import { listRecordLines } from '#contract/lists'
import type { OrderPlan } from '#contract/methods'
import { cancelOrder, readOrder, readOrderTimeline } from '#contract/orders'
import { PLAIN_STEP } from '#core/methods'
import type { MethodContent, MethodStep } from '#core/methods'
import { accepted, castAt, Client, House, orderAt, report, version } from '../kit'
import type { Cast, Running } from '../kit'

/** Methods from the library to the job: written in versions, offered with reasons, applied, and done step by step. */
let house: House
let server: Running
let cast: Cast
let account: Record<string, number>

beforeAll(async () => {
  house = await House.open('methods', { mail: true })
  server = await house.start()
  cast = await castAt(server.url)
  account = Object.fromEntries(
    (await house.rows<{ id: number; email: string }>('SELECT id, email FROM account')).map(({ id, email }) => [email.split('@')[0]!, id]),
  )
})
afterAll(() => house?.close())

const step = (text: string, more: Partial<MethodStep> = {}): MethodStep => ({ ...PLAIN_STEP, text, after: null, ...more })
const CONTENT: MethodContent = {
  steps: [
    step('Order the thermostat', { first: true }),
    step('Pressure', { kind: 'measured', unit: 'bar', least: 1, most: 3 }),
    step('Exchange it', { after: 1 }),
    step('State', { kind: 'choice', choices: ['Good', 'Worn'] }),
    step('Show it', { kind: 'photo' }),
  ],
  labour: [{ tradeId: 2, people: 2, minutes: 40 }],
  parts: [{ partId: 5, quantity: '1.5' }],
  tools: [{ text: 'Ladder', equipmentId: null }],
  hazards: [{ hazard: 'Turning fan', control: 'Isolate', permit: 'isolation' }],
}
let codes = 0
async function method(content: MethodContent = CONTENT, more: object = {}): Promise<number> {
  const { id } = await cast.coordinator.must(addMethod, { code: `T-${++codes}`, name: `Thermostat exchanged ${codes}`, ...more })
  await cast.coordinator.must(writeMethod, { id, from: 0, content })
  return id
}
const planOf = (orderId: number) => cast.coordinator.must(readOrderPlan, { orderId })
async function planned(
  state: Parameters<typeof orderAt>[1] = 'draft',
  content = CONTENT,
): Promise<{ id: number; visitId: number; plan: OrderPlan; methodId: number }> {
  const { id, visitId } = await orderAt(cast, state)
  const methodId = await method(content)
  const { version: now } = await planOf(id)
  return { id, visitId, methodId, plan: await cast.coordinator.must(applyMethods, { orderId: id, version: now, methodIds: [methodId] }) }
}
const says = (plan: OrderPlan, text: string) => plan.steps.find((one) => one.text === text)!
const sentence = (reply: { problem: { reasons?: { sentence: string }[] } }) => reply.problem.reasons![0]!.sentence

describe('the library', () => {
  test('is a register like the others, whose lists count steps and orders', async () => {
    const id = await method()
    expect(await cast.coordinator.must(readMethod, { id })).toMatchObject({
      register: 'methods',
      site: null,
      state: 'in_use',
      heading: expect.stringContaining('Thermostat'),
    })
    const { rows } = await cast.coordinator.must(listRecordLines, { register: 'methods', ask: 'columns=code,steps,used', limit: 100 })
    expect(rows.find((row) => row.id === id)!.cells).toMatchObject({ steps: 5, used: null })
    const used = await house.rows<{ method_id: number; n: number }>('SELECT method_id, COUNT(*) AS n FROM order_method GROUP BY method_id')
    for (const { method_id: one, n } of used) expect(rows.find((row) => row.id === one)!.cells.used).toBe(Number(n))
    const taken = await cast.coordinator.call(addMethod, { code: `T-${codes}`, name: 'Another' })
    expect([taken.status, sentence(taken)]).toEqual([422, expect.stringContaining('belongs to')])
    expect((await cast.clerk.call(addMethod, { code: 'T-X', name: 'Not theirs' })).status).toBe(403)
  })

  test('is written in versions: a stale one is refused, and each can be read later', async () => {
    const id = await method()
    const next = { ...CONTENT, steps: [step('One step alone')] }
    const second = await cast.coordinator.must(writeMethod, { id, from: 1, content: next, note: 'made short' })
    expect([second.edition, second.editions.map((one) => [one.edition, one.note, one.by])]).toEqual([
      2,
      [
        [2, 'made short', 'Maren Quill'],
        [1, null, 'Maren Quill'],
      ],
    ])
    expect((await cast.coordinator.call(writeMethod, { id, from: 1, content: CONTENT })).status).toBe(409)
    const first = await cast.coordinator.must(readMethodContent, { id, edition: 1 })
    expect([first.content, first.mayEdit, first.names.trades[2]]).toEqual([CONTENT, false, 'HVAC and refrigeration'])
    expect((await cast.coordinator.call(readMethodContent, { id, edition: 9 })).status).toBe(404)
    expect((await cast.clerk.call(writeMethod, { id, from: 2, content: next })).status).toBe(403)
  })

  test.each<[string, Partial<MethodContent>, string]>([
    ['a measured step without a unit', { steps: [step('x', { kind: 'measured' })] }, 'steps.0.unit'],
    ['a trade that is not there', { labour: [{ tradeId: 9_999, people: 1, minutes: 5 }] }, 'labour.0.tradeId'],
    ['a part that is not there', { parts: [{ partId: 9_999, quantity: '1' }] }, 'parts.0.partId'],
    ['equipment that is not there', { tools: [{ text: 'Crane', equipmentId: 9_999 }] }, 'tools.0.equipmentId'],
  ])('%s is refused at its line, and no version is made', async (_name, wrong, field) => {
    const id = await method()
    const reply = await cast.coordinator.call(writeMethod, { id, from: 1, content: { ...CONTENT, ...wrong } })
    expect([reply.status, reply.problem.reasons!.map((one) => one.field)]).toEqual([422, [field]])
    expect((await cast.coordinator.must(readMethodContent, { id })).edition).toBe(1)
  })

  test('two who write at once: one version, the other is told', async () => {
    const id = await method()
    const replies = await Promise.all([1, 2].map((n) => cast.coordinator.call(writeMethod, { id, from: 1, content: { ...CONTENT, steps: [step(`By ${n}`)] } })))
    expect(replies.map(({ status }) => status).sort()).toEqual([200, 409])
  })
})

describe('on an order', () => {
  test('a method brings its steps, labour, parts, tools and hazards; the order keeps the version it was given', async () => {
    const { id, plan, methodId } = await planned()
    expect(plan.steps.map(({ text, kind, position, state }) => [position, text, kind, state])).toEqual(
      CONTENT.steps.map(({ text, kind }, index) => [index + 1, text, kind, 'open']),
    )
    expect([plan.labour, plan.parts, plan.tools, plan.hazards]).toEqual([CONTENT.labour, CONTENT.parts, CONTENT.tools, CONTENT.hazards])
    expect(says(plan, 'Exchange it').afterId).toBe(says(plan, 'Pressure').id)
    await cast.coordinator.must(writeMethod, { id: methodId, from: 1, content: { ...CONTENT, steps: [] } })
    const later = await planOf(id)
    expect([later.steps.length, later.methods[0]]).toEqual([5, expect.objectContaining({ edition: 1, newer: true })])
    const timeline = await cast.coordinator.must(readOrderTimeline, { id })
    expect(timeline.entries.map(({ kind }) => kind)).toContain('plan.apply')
  })

  test('several at once add up; one that is given already, a retired and an empty one are refused whole', async () => {
    const { id, plan, methodId } = await planned()
    const second = await method({ ...CONTENT, labour: [{ tradeId: 2, people: 1, minutes: 20 }] })
    const both = await cast.coordinator.must(applyMethods, { orderId: id, version: plan.version, methodIds: [second] })
    expect([both.steps.length, both.labour, both.parts]).toEqual([10, [{ tradeId: 2, people: 2, minutes: 50 }], [{ partId: 5, quantity: '3' }]])
    const apply = (methodIds: number[]) => cast.coordinator.call(applyMethods, { orderId: id, version: both.version, methodIds })
    expect(sentence(await apply([methodId]))).toContain('already')
    const { id: empty } = await cast.coordinator.must(addMethod, { code: `T-${++codes}`, name: 'Nothing yet' })
    expect((await apply([empty])).problem.reasons![0]!.code).toBe('method_unknown')
    const retired = await method()
    await cast.coordinator.must(retireMethod, { id: retired, version: (await cast.coordinator.must(readMethod, { id: retired })).version })
    expect((await apply([retired])).problem.reasons![0]!.code).toBe('method_unknown')
    expect((await planOf(id)).methods).toHaveLength(2)
    const gone = await cast.coordinator.must(takeOffMethod, { orderId: id, version: both.version, appliedId: both.methods[1]!.id })
    expect([gone.steps.length, gone.labour, gone.parts]).toEqual([5, [{ tradeId: 2, people: 2, minutes: 40 }], CONTENT.parts])
  })

  test('what it needs is changed line by line, a stale change is refused, and nothing is lost', async () => {
    const { id, plan } = await planned()
    const saved = await cast.coordinator.must(savePlan, { orderId: id, version: plan.version, parts: [{ partId: 6, quantity: '0.25' }] })
    expect([saved.parts, saved.labour, saved.version]).toEqual([[{ partId: 6, quantity: '0.25' }], CONTENT.labour, plan.version + 1])
    expect((await cast.coordinator.call(savePlan, { orderId: id, version: plan.version, parts: [] })).status).toBe(409)
    expect((await cast.coordinator.must(savePlan, { orderId: id, version: saved.version, parts: saved.parts })).version).toBe(saved.version)
    expect((await cast.approver.call(savePlan, { orderId: id, version: saved.version, parts: [] })).status).toBe(403)
  })

  test('two who apply at once: one is told to look again', async () => {
    const { id } = await orderAt(cast, 'draft')
    const ids = [await method(), await method()]
    const replies = await Promise.all(ids.map((one) => cast.coordinator.call(applyMethods, { orderId: id, version: 0, methodIds: [one] })))
    expect(replies.map(({ status }) => status).sort()).toEqual([200, 409])
    expect((await planOf(id)).steps).toHaveLength(5)
  })

  test('a step is added, changed, put elsewhere and taken out; what was done stays', async () => {
    const { id, plan } = await planned()
    const added = await cast.coordinator.must(addStep, { orderId: id, text: 'Tell the laboratory', first: true, afterId: says(plan, 'Pressure').id })
    const mine = says(added, 'Tell the laboratory')
    expect(mine).toMatchObject({ position: 6, first: true, kind: 'plain', appliedId: null })
    const front = await cast.coordinator.must(editStep, { id: mine.id, version: 1, text: 'Tell the lab', afterId: null, before: plan.steps[0]!.id })
    expect(front.steps.map(({ text }) => text)[0]).toBe('Tell the lab')
    const pressure = says(front, 'Pressure')
    const ring = await cast.coordinator.call(editStep, { id: pressure.id, version: pressure.version, afterId: says(front, 'Exchange it').id })
    expect([ring.status, sentence(ring)]).toEqual([422, 'It would wait for itself.'])
    expect((await cast.coordinator.call(editStep, { id: mine.id, version: 1, text: 'Stale' })).status).toBe(409)
    await cast.coordinator.must(doStep, { id: mine.id, version: 2 })
    const done = says(await planOf(id), 'Tell the lab')
    expect((await cast.coordinator.call(dropStep, { id: done.id, version: done.version })).status).toBe(422)
    expect(sentence(await cast.coordinator.call(editStep, { id: done.id, version: done.version, text: 'Otherwise' }))).toContain('done already')
    const state = says(front, 'State')
    expect((await cast.coordinator.must(dropStep, { id: state.id, version: state.version })).steps.map(({ text }) => text)).not.toContain('State')
    const off = await cast.coordinator.must(takeOffMethod, { orderId: id, version: front.version, appliedId: plan.methods[0]!.id })
    expect(off.steps.map(({ text }) => text)).toEqual(['Tell the lab'])
  })

  test('a method of which a step is done is not taken off', async () => {
    const { id, plan } = await planned()
    const first = plan.steps[0]!
    await cast.coordinator.must(doStep, { id: first.id, version: first.version })
    const reply = await cast.coordinator.call(takeOffMethod, { orderId: id, version: plan.version, appliedId: plan.methods[0]!.id })
    expect([reply.status, sentence(reply)]).toEqual([422, expect.stringContaining('“Order the thermostat” of it is done already')])
    expect((await planOf(id)).steps).toHaveLength(5)
  })

  test('once the order is over, its plan stays', async () => {
    const { id, plan } = await planned()
    await cast.coordinator.must(cancelOrder, { id, version: await version(cast, id), reason: 'Not needed' })
    const later = await planOf(id)
    expect([later.mayEdit, later.whyNot]).toEqual([false, 'The order is over: what was planned stays as it was.'])
    for (const reply of [
      await cast.coordinator.call(savePlan, { orderId: id, version: plan.version, parts: [] }),
      await cast.coordinator.call(addStep, { orderId: id, text: 'More' }),
      await cast.coordinator.call(doStep, { id: plan.steps[0]!.id, version: 1 }),
    ])
      expect(reply.status).toBe(422)
  })

  test('a good order is made a method: its steps with what they wait for, and what it needed', async () => {
    const { id, plan } = await planned()
    const [a, b] = [says(plan, 'Pressure'), says(plan, 'Show it')]
    await cast.coordinator.must(editStep, { id: a.id, version: a.version, before: null })
    const made = await cast.coordinator.must(keepAsMethod, { orderId: id, code: 'T-KEPT', name: 'Kept from a good job' })
    const { content, edition } = await cast.coordinator.must(readMethodContent, { id: made.id })
    expect([edition, content.steps.map(({ text }) => text), content.labour]).toEqual([
      1,
      ['Order the thermostat', 'Exchange it', 'State', 'Show it', 'Pressure'],
      CONTENT.labour,
    ])
    // What it waited for stands behind it now, so it waits for nothing.
    expect(content.steps[1]!.after).toBeNull()
    expect(b.kind).toBe('photo')
    const { id: bare } = await orderAt(cast, 'draft')
    expect(sentence(await cast.coordinator.call(keepAsMethod, { orderId: bare, code: 'T-BARE', name: 'Nothing' }))).toContain('Nothing is planned')
    expect(await house.rows("SELECT id FROM method WHERE code = 'T-BARE'")).toEqual([])
  })
})

describe('somebody else’s step', () => {
  test('they are told by mail and notice, find it, do it, and the order shows it without changing hands', async () => {
    const { id, plan } = await planned('ready')
    const before = await cast.coordinator.must(readOrder, { id })
    const thermostat = says(plan, 'Order the thermostat')
    await cast.coordinator.must(editStep, { id: thermostat.id, version: 1, assigneeId: account['petra.lindqvist']! })
    const mail = await house.mail('petra.lindqvist@skerry.example', (one) => one.subject.includes('a step for you'))
    expect([mail.subject, mail.text]).toEqual([expect.stringContaining('Order the thermostat'), expect.stringContaining('/my-steps')])
    const notices = await cast.clerk.hears((sentence) => sentence.includes('gave you a step'))
    expect(notices[0]).toMatchObject({ leadsTo: '/my-steps', sentence: expect.stringContaining('gave you a step') })
    const mine = (await cast.clerk.must(listMySteps, {})).rows.find((one) => one.id === thermostat.id)!
    expect(mine).toMatchObject({ text: 'Order the thermostat', waitsFor: null, order: { id, state: 'ready' } })
    await cast.clerk.must(doStep, { id: mine.id, version: mine.version, note: 'Comes on Friday' })
    expect((await cast.clerk.must(listMySteps, {})).rows.some((one) => one.id === mine.id)).toBe(false)
    expect((await cast.clerk.must(listMySteps, { done: true })).rows[0]).toMatchObject({ id: mine.id, doneBy: 'Petra Lindqvist', note: 'Comes on Friday' })
    const after = await cast.coordinator.must(readOrder, { id })
    expect([after.leadId, after.teamId, after.version]).toEqual([before.leadId, before.teamId, before.version])
    expect(says(await planOf(id), 'Order the thermostat')).toMatchObject({ state: 'done', doneBy: 'Petra Lindqvist' })
    // Not theirs: the other steps, and those of orders they may only read.
    const other = says(plan, 'Pressure')
    expect((await cast.clerk.call(doStep, { id: other.id, version: 1, value: '2' })).status).toBe(403)
    expect((await cast.technician.call(doStep, { id: other.id, version: 1, value: '2' })).status).toBe(404)
  })

  test('a technician hears of a step only once the order is approved', async () => {
    const { id, plan } = await planned('draft')
    await cast.coordinator.must(editStep, { id: plan.steps[0]!.id, version: 1, assigneeId: account['bram.oyelaran']! })
    expect((await cast.technician.must(listMySteps, {})).rows.filter((one) => one.order.id === id)).toEqual([])
    expect((await cast.technician.call(doStep, { id: plan.steps[0]!.id, version: 2 })).status).toBe(404)
  })

  test('nobody who works elsewhere can be given one', async () => {
    const { plan } = await planned()
    const reply = await cast.coordinator.call(editStep, { id: plan.steps[0]!.id, version: 1, assigneeId: 9_999 })
    expect([reply.status, reply.problem.reasons![0]!.field]).toEqual([422, 'assigneeId'])
  })
})

describe('done on the job', () => {
  test('each step as it asks: a value, an answer, a photo; what is outside its limits is marked, and told', async () => {
    const { id, visitId, plan } = await planned('dispatched')
    const mine = async () => (await cast.technician.must(listJobSteps, { visitId })).rows
    expect((await mine()).map(({ text, waitsFor }) => [text, waitsFor])).toEqual([
      ['Order the thermostat', null],
      ['Pressure', null],
      ['Exchange it', 'Pressure'],
      ['State', null],
      ['Show it', null],
    ])
    const one = (text: string) => says(plan, text).id
    const act = (text: string, more: object = {}) => cast.technician.call(doStep, { id: one(text), version: 1, ...more })
    expect(sentence(await act('Exchange it'))).toBe('It waits for “Pressure”. Do that first.')
    expect((await act('Pressure', { value: 'high' })).problem.reasons![0]!.field).toBe('value')
    expect((await act('Pressure', { value: '3.4' })).body).toMatchObject({ state: 'done', value: '3.4', outside: true, doneBy: 'Bram Oyelaran' })
    expect((await act('Exchange it')).body).toMatchObject({ state: 'done' })
    expect(sentence(await act('State', { value: 'Splendid' }))).toBe('Choose one of Good, Worn.')
    expect(sentence(await act('State', { leave: true }))).toBe('Say why it is left out.')
    expect((await act('State', { leave: true, note: 'No light' })).body).toMatchObject({ state: 'left', note: 'No light' })
    expect(sentence(await act('Show it'))).toContain('A photo is wanted')
    const picture = await sharp({ create: { width: 40, height: 30, channels: 3, background: '#234' } })
      .png()
      .toBuffer()
    const { version: now, photoId } = await cast.technician.must(
      addStepPhoto,
      { id: one('Show it') },
      { file: new Blob([new Uint8Array(picture)], { type: 'image/png' }) },
    )
    expect(photoId).toBeGreaterThan(0)
    expect(await cast.technician.must(doStep, { id: one('Show it'), version: now })).toMatchObject({ state: 'done' })
    await cast.coordinator.hears((sentence) => sentence.includes('Pressure, 3.4 bar, outside its limits'))
    const back = await cast.technician.must(undoStep, { id: one('Pressure'), version: 2 })
    expect([back.state, back.value, back.outside]).toEqual(['open', null, false])
    const other = await new Client(server.url).signIn('fintan.rosewarne')
    expect((await other.call(doStep, { id: one('Pressure'), version: 3, value: '2' })).status).toBe(404)
    expect((await other.call(listJobSteps, { visitId })).status).toBe(404)
    expect((await planOf(id)).steps.filter((step) => step.state === 'open').map(({ text }) => text)).toEqual(['Order the thermostat', 'Pressure'])
  })

  test('the same step twice at once is done once', async () => {
    const { plan } = await planned('draft')
    const { id } = plan.steps[0]!
    const replies = await Promise.all([1, 2, 3].map(() => cast.coordinator.call(doStep, { id, version: 1 })))
    expect(replies.map(({ status }) => status).sort()).toEqual([200, 409, 409])
  })
})

describe('before anybody goes', () => {
  const times = { start: '2026-11-23T13:00:00Z', end: '2026-11-23T14:00:00Z' }

  test('steps that come first are done, or somebody says why not; the timeline keeps the reason', async () => {
    const { id } = await planned('ready')
    expect((await cast.coordinator.must(readOrder, { id })).facts.stepsFirst).toEqual(['Order the thermostat'])
    const go = async (more: object = {}) =>
      cast.coordinator.call(dispatchOrder, { id, version: await version(cast, id), technicianIds: [1], ...times, ...more })
    const refused = await go()
    expect([refused.status, refused.problem.reasons![0]]).toEqual([
      422,
      {
        code: 'steps_first',
        field: 'despiteSteps',
        sentence: 'This step has to be done before anybody goes: “Order the thermostat”. Do it first, or say why somebody goes all the same.',
      },
    ])
    expect(await house.rows('SELECT id FROM visit WHERE order_id = ?', [id])).toEqual([])
    expect((await go({ despiteSteps: ' ' })).status).toBe(422)
    expect((await go({ despiteSteps: 'A spare lies in the van' })).status).toBe(200)
    const [event] = await house.rows<{ reason: string }>("SELECT reason FROM event WHERE order_id = ? AND kind = 'order.dispatch'", [id])
    expect(event!.reason).toBe('A spare lies in the van')
  })

  test('once they are done nothing is asked, and a reason that was not needed is not kept', async () => {
    const { id, plan } = await planned('ready')
    await cast.coordinator.must(doStep, { id: plan.steps[0]!.id, version: 1 })
    await cast.coordinator.must(dispatchOrder, { id, version: await version(cast, id), technicianIds: [1], ...times, despiteSteps: 'No matter' })
    const [event] = await house.rows<{ reason: string | null }>("SELECT reason FROM event WHERE order_id = ? AND kind = 'order.dispatch'", [id])
    expect(event!.reason).toBeNull()
  })
})

describe('offered', () => {
  test('where it fits, with how often such work was done by it and how long that took', async () => {
    const [like] = await house.rows<{ asset_id: number; class_code: string }>(
      `SELECT o.asset_id, a.class_code FROM work_order o JOIN asset a ON a.id = o.asset_id JOIN order_method m ON m.order_id = o.id
       WHERE o.kind = 'preventive' AND a.class_code = 'D2090' AND o.state = 'closed' LIMIT 1`,
    )
    const id = await accepted(cast, (await report(cast)).id)
    await house.rows("UPDATE work_order SET kind = 'preventive', asset_id = ?, category_id = 5, summary = 'Pump service' WHERE id = ?", [like!.asset_id, id])
    const { rows, names } = await cast.coordinator.must(offerMethods, { orderId: id })
    expect(rows[0]).toMatchObject({ code: 'M-PUMP-1', edition: 1 })
    // Held against the rows themselves.
    const last = await house.rows<{ used: number }>(
      `SELECT EXISTS (SELECT 1 FROM order_method m JOIN method t ON t.id = m.method_id AND t.code = 'M-PUMP-1' WHERE m.order_id = o.id) AS used
       FROM work_order o JOIN asset a ON a.id = o.asset_id WHERE a.class_code = 'D2090' AND a.site_id = 1 AND o.kind = 'preventive' AND o.discarded_at IS NULL
       AND o.state IN ('done', 'checked', 'closed') ORDER BY o.created_at DESC LIMIT 14`,
    )
    const used = last.filter((row) => Number(row.used)).length
    expect(rows[0]!.reasons).toEqual(expect.arrayContaining([expect.stringContaining(`Used on ${used} of the last 14 preventive orders of such assets`)]))
    expect(rows[0]!.reasons).toEqual(expect.arrayContaining([expect.stringMatching(/^Took .+ at the median, up to .+ in nine of ten$/)]))
    expect(names.parts[13]).toMatchObject({ code: 'LS-401' })
    expect(rows.every(({ code }) => !code.startsWith('M-LIFT'))).toBe(true)
    const { version: now } = await planOf(id)
    await cast.coordinator.must(applyMethods, { orderId: id, version: now, methodIds: [rows[0]!.id] })
    expect((await cast.coordinator.must(offerMethods, { orderId: id })).rows.some(({ code }) => code === 'M-PUMP-1')).toBe(false)
  })

  test('by name or code, whatever fits; and nothing that is retired or empty', async () => {
    const { id } = await orderAt(cast, 'draft')
    const { rows } = await cast.coordinator.must(offerMethods, { orderId: id, q: 'lift maker' })
    expect(rows.map(({ code }) => code)).toEqual(['M-LIFT-1'])
    expect((await cast.coordinator.must(offerMethods, { orderId: id, q: 'nothing yet' })).rows).toEqual([])
    expect((await cast.coordinator.must(offerMethods, { orderId: id, q: '%' })).rows.length).toBeLessThanOrEqual(12)
  })
})

test('nobody of the other site reads or changes a plan', async () => {
  const { id, plan } = await planned('ready')
  await house.rows('UPDATE account_role SET site_id = 2 WHERE account_id = ?', [account['tobias.achterberg']])
  const other = await new Client(server.url).signIn('tobias.achterberg')
  for (const reply of [
    await other.call(readOrderPlan, { orderId: id }),
    await other.call(offerMethods, { orderId: id }),
    await other.call(savePlan, { orderId: id, version: plan.version, parts: [] }),
    await other.call(addStep, { orderId: id, text: 'x' }),
    await other.call(doStep, { id: plan.steps[0]!.id, version: 1 }),
    await other.call(keepAsMethod, { orderId: id, code: 'T-SPY', name: 'Spied' }),
  ])
    expect(reply.status).toBe(404)
})

describe('what it will cost', () => {
  test('by the plan: labour at the mean of the rates in force, parts at the average price; beside what was entered, agreed to and such work costs', async () => {
    const { id } = await planned('ready')
    const estimate = await cast.coordinator.must(readPlanEstimate, { orderId: id })
    // Held against the rows themselves.
    const [rate] = await house.rows<{ mean: string; n: number }>(
      `SELECT AVG(r.normal_per_hour) AS mean, COUNT(*) AS n FROM technician_trade t JOIN technician c ON c.id = t.technician_id JOIN account a ON a.id = c.account_id
       JOIN person p ON p.id = a.person_id JOIN technician_rate r ON r.technician_id = c.id AND r.from_at = (SELECT MAX(from_at) FROM technician_rate WHERE technician_id = c.id AND from_at <= '2026-11-23 10:30:00')
       WHERE t.trade_id = 2 AND p.site_id = 1 AND a.disabled_at IS NULL`,
    )
    const [part] = await house.rows<{ price: string }>(
      'SELECT SUM(l.quantity * l.average_cost_minor) / SUM(l.quantity) AS price FROM stock_level l JOIN store s ON s.id = l.store_id WHERE l.part_id = 5 AND s.site_id = 1',
    )
    const labour = 2 * Math.round((Math.round(Number(rate!.mean)) * 40) / 60)
    const parts = Math.round(1.5 * Math.round(Number(part!.price)))
    expect(estimate.lines.map(({ kind, costMinor }) => [kind, costMinor])).toEqual([
      ['labour', labour],
      ['parts', parts],
    ])
    expect(estimate).toMatchObject({ totalMinor: labour + parts, enteredMinor: 20_000, approvedMinor: 20_000, unknown: [], mayTake: false, currency: 'EUR' })
    const draft = await planned('draft')
    expect(await cast.coordinator.must(readPlanEstimate, { orderId: draft.id })).toMatchObject({ approvedMinor: null, mayTake: true })
    expect((await cast.approver.must(readPlanEstimate, { orderId: draft.id })).mayTake).toBe(false)
  })

  test('by a vendor the order names: minimum, step and call-out; what such work cost is told where there is enough of it', async () => {
    const { id } = await planned('draft')
    const [like] = await house.rows<{ asset_id: number }>(
      "SELECT o.asset_id FROM work_order o JOIN asset a ON a.id = o.asset_id WHERE a.class_code = 'D2090' AND o.kind = 'preventive' LIMIT 1",
    )
    const [vendor] = await house.rows<{ id: number }>('SELECT v.id FROM vendor v JOIN vendor_trade t ON t.vendor_id = v.id WHERE t.trade_id = 2 LIMIT 1')
    await house.rows('UPDATE vendor SET call_out_minor = 5000, per_hour_minor = 6000, minimum_minutes = 60, step_minutes = 30 WHERE id = ?', [vendor!.id])
    await house.rows("UPDATE work_order SET vendor_id = ?, asset_id = ?, kind = 'preventive' WHERE id = ?", [vendor!.id, like!.asset_id, id])
    const estimate = await cast.coordinator.must(readPlanEstimate, { orderId: id })
    expect(estimate.lines.filter(({ kind }) => kind === 'vendor').map(({ costMinor }) => costMinor)).toEqual([12_000, 5_000])
    expect(estimate.like!.orders).toBeGreaterThanOrEqual(3)
    expect(estimate.like!.fromMinor).toBeLessThanOrEqual(estimate.like!.medianMinor)
    expect(estimate.like!.toMinor).toBeGreaterThanOrEqual(estimate.like!.medianMinor)
  })
})
