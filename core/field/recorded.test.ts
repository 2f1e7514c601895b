import { clockElsewhere, isHeardLater, jobsOn, momentOf, newsOf, nextDay, rowsWithActs, seenAs, stepsWithActs, waysOnDays, withActs } from '#core/field'
import type { RecordedAct, RecordedJob } from '#core/field'

const at = (clock: string, day = '23') => `2026-11-${day}T${clock}:00.000Z`
const job: RecordedJob = {
  visitId: 1,
  visitState: 'planned',
  orderState: 'dispatched',
  running: null,
  stints: [],
  parts: [],
  notes: [],
  photos: [],
  signatures: [],
  outcome: { symptom: 'No power', cause: null, fix: null },
  hazardsReadAt: null,
  permits: [],
  alone: { everyMinutes: 30, dueAt: null },
  findings: [],
  meters: [{ id: 3, readings: [], readHere: null }],
  downtimes: [],
  asked: [],
  equipment: [],
  talk: { rows: [] },
}
const act = <Name extends RecordedAct['name']>(
  name: Name,
  clock: string,
  input: Extract<RecordedAct, { name: Name }>['input'],
  more: Partial<RecordedAct> = {},
) => ({ name, visitId: 1, at: at(clock), input, ...more }) as RecordedAct

describe('the moment', () => {
  const now = new Date(at('12:00'))
  test('is the one recorded, and now where none is or a clock runs ahead', () => {
    expect(momentOf(null, now)).toBe(now)
    expect(momentOf(new Date(at('09:00')), now)).toEqual(new Date(at('09:00')))
    expect(momentOf(new Date(at('12:01')), now)).toBe(now)
  })
  test('may be thirty days ago to the minute, and no longer', () => {
    expect(() => momentOf(new Date('2026-10-24T12:00:00Z'), now)).not.toThrow()
    expect(() => momentOf(new Date('2026-10-24T11:59:00Z'), now)).toThrow('more than 30 days ago')
  })
  test('is worth saying once it is a minute apart from when it was heard', () => {
    expect([isHeardLater(new Date(at('11:59')), now), isHeardLater(new Date(at('11:58')), now)]).toEqual([false, true])
  })
})

describe('a job with what was recorded on it', () => {
  test('goes on as whoever recorded it knows it: clock, parts, notes, photos, and left', () => {
    const worked = withActs(
      job,
      [
        act('stint', '08:00', { kind: 'travel' }),
        act('stint', '08:20', { kind: 'work' }),
        act('stint', '08:25', { kind: 'work' }),
        act('part', '08:30', { partId: 4, quantity: '2' }, { shown: { code: 'FUSE', name: 'Fuse 10 A', unit: 'pc' } }),
        act('note', '08:31', { text: 'Loose' }),
        act('photo', '08:32', {}, { fileId: 'act-1' }),
        { ...act('note', '08:33', { text: 'Elsewhere' }), visitId: 2 },
        act('hazards', '08:34', { read: '[]' }),
        act('permit', '08:35', { kind: 'isolation', number: 'P-7', fromAt: at('08:00'), untilAt: at('12:00') }),
        act('finish', '09:05', { result: 'done', cause: 'Wear', fix: 'Replaced' }),
        act('stint', '09:10', { kind: 'work' }),
      ],
      'Bram',
    )
    expect(worked).toMatchObject({
      visitState: 'ended',
      orderState: 'on_job',
      running: null,
      stints: [
        { kind: 'travel', startAt: at('08:00'), endAt: at('08:20'), minutes: 20 },
        { kind: 'work', startAt: at('08:20'), endAt: at('09:05'), minutes: 45 },
      ],
      parts: [{ code: 'FUSE', name: 'Fuse 10 A', quantity: '2', unit: 'pc' }],
      notes: [{ at: at('08:31'), who: 'Bram', text: 'Loose' }],
      photos: [{ fileId: 'act-1' }],
      outcome: { symptom: 'No power', cause: 'Wear', fix: 'Replaced' },
      hazardsReadAt: at('08:34'),
      permits: [{ kind: 'isolation', number: 'P-7', untilAt: at('12:00') }],
    })
    // The phone’s own have no number of the server’s.
    expect([...worked.stints, ...worked.parts, ...worked.photos].every(({ id }) => id < 0)).toBe(true)
    expect(job.stints).toEqual([])
  })

  test('a clock is stopped as of when it is said to be, put right, and never ends before it began', () => {
    const known = { ...job, stints: [{ id: 5, kind: 'work' as const, startAt: at('07:00'), endAt: at('07:30'), minutes: 30 }] }
    const [put] = withActs(known, [act('correct', '09:00', { stintId: 5, startAt: at('07:10'), endAt: at('07:50'), reason: 'x' })], '').stints
    expect(put).toMatchObject({ startAt: at('07:10'), endAt: at('07:50'), minutes: 40 })
    const started = act('stint', '08:00', { kind: 'work' })
    expect(withActs(job, [started, act('stop', '20:00', { stoppedAt: at('09:00') })], '').stints[0]).toMatchObject({ endAt: at('09:00'), minutes: 60 })
    expect(withActs(job, [started, act('stop', '07:00', {})], '').stints[0]).toMatchObject({ endAt: at('08:00'), minutes: 0 })
  })

  test('steps are done, left out and taken back by the version they were at; what waited waits no more', () => {
    const step = (id: number, waitsFor: string | null = null) => ({
      ...{ id, version: 1, state: 'open', text: `Step ${id}`, waitsFor, photoId: null },
      ...{
        value: null,
        note: null,
        doneBy: null,
        doneAt: null,
        outside: false,
        kind: 'measured' as const,
        unit: 'bar',
        least: 2,
        most: 3,
        choices: [],
        first: false,
      },
    })
    const steps = [step(1), step(2, 'Step 1'), step(3)]
    const done = act('step', '08:00', { id: 1, version: 1, value: '3.5' })
    const all = [done, act('step', '08:01', { id: 3, version: 1, note: 'no ladder', leave: true }), act('stepPhoto', '08:02', { id: 2 }, { fileId: 'act-2' })]
    expect(stepsWithActs(steps, all, 'Bram')).toMatchObject([
      { state: 'done', value: '3.5', outside: true, doneBy: 'Bram', doneAt: at('08:00'), version: 2 },
      { state: 'open', waitsFor: null, photoId: -1, fileId: 'act-2', version: 2 },
      { state: 'left', note: 'no ladder', version: 2 },
    ])
    expect(stepsWithActs(steps, [done, act('stepUndo', '08:03', { id: 1, version: 2 })], '')[0]).toMatchObject({
      state: 'open',
      value: null,
      outside: false,
      version: 3,
    })
    // Somebody else has changed it since: what the server says then decides.
    expect(stepsWithActs([{ ...step(1), version: 4 }], [done], '')[0]).toMatchObject({ state: 'open', version: 4 })
  })

  test('the list says where the clock runs, and that it may run there alone', () => {
    const rows = [1, 2].map((visitId) => ({ visitId, visitState: 'planned', orderState: 'dispatched', running: null }))
    const started = [act('stint', '08:00', { kind: 'work' })]
    expect(clockElsewhere(rowsWithActs(rows, started), 2)?.visitId).toBe(1)
    expect(clockElsewhere(rowsWithActs(rows, started), 1)).toBeNull()
    expect(clockElsewhere(rowsWithActs(rows, [...started, act('stop', '08:10', {})]), 2)).toBeNull()
    expect(rowsWithActs(rows, [...started, act('finish', '09:00', { result: 'done' })])[0]).toMatchObject({ visitState: 'ended', running: null })
  })
})

describe('the days', () => {
  const row = (visitId: number, start: string, visitState = 'planned') => ({ visitId, plannedStart: start, visitState })
  const jobs = [
    row(1, at('08:00', '20')),
    row(2, at('08:00', '20'), 'ended'),
    row(3, at('09:00')),
    row(4, at('09:00', '24')),
    row(5, at('09:00', '26'), 'on_site'),
  ]
  const dayOf = (instant: string) => instant.slice(0, 10)
  const on = (from: string, to: string) =>
    jobsOn(jobs, { from: `2026-11-${from}`, to: `2026-11-${to}`, today: '2026-11-23' }, dayOf).map(({ visitId }) => visitId)

  test('today has what is open from before and what was begun early; other days their own alone', () => {
    expect([on('23', '23'), on('24', '24'), on('23', '29'), on('26', '26')]).toEqual([[1, 3, 5], [4], [1, 3, 4, 5], [5]])
  })
  test('the next day that has any, and none', () => {
    expect(nextDay(jobs, '2026-11-23', dayOf).map(({ visitId }) => visitId)).toEqual([4])
    expect(nextDay(jobs, '2026-11-26', dayOf)).toEqual([])
  })
  test('the way to each is from the one before it on that day, the first from where the day begins', () => {
    const way = (from: string | null, to: string | null) => Math.abs(Number(from) - Number(to))
    const jobs = [
      { day: '23', path: '10' },
      { day: '23', path: '10' },
      { day: '23', path: '25' },
      { day: '24', path: '12' },
      { day: '24', path: null },
      { day: '24', path: '20' },
    ]
    expect(waysOnDays(jobs, '1', way)).toEqual([9, 0, 15, 11, null, null])
    expect(waysOnDays(jobs.slice(0, 1), null, way)).toEqual([null])
  })
  test('a job is new until it was seen, and news when its time, place, priority or what it is about change', () => {
    const seen = { ...row(1, at('08:00')), plannedEnd: at('09:00'), summary: 'Socket', placeCode: 'A', priority: 'routine' }
    expect([newsOf(seen, undefined), newsOf(seen, seenAs(seen))]).toEqual([[], null])
    expect(newsOf({ ...seen, plannedStart: at('10:00'), plannedEnd: at('11:00'), priority: 'urgent' }, seenAs(seen))).toEqual(['time', 'priority'])
    expect(newsOf({ ...seen, placeCode: 'B', summary: 'Lamp' }, seenAs(seen))).toEqual(['what', 'where'])
  })
})

describe('what was found, read and out of use', () => {
  const found = act('finding', '09:00', { mark: 'm-1', text: 'Rail loose', severity: 'unsafe', fixedNow: false }, { shown: { name: 'GAN-102 Studio 2' } })
  test('a finding stands with its photos until it is taken back, and once however often it is said', () => {
    const photo = act('findingPhoto', '09:01', { mark: 'm-1' }, { fileId: 'act-7' })
    const [shown, ...others] = withActs(job, [found, photo, act('findingPhoto', '09:02', { mark: 'other' }), found, photo], 'Bram').findings
    expect(others).toEqual([])
    expect(shown).toMatchObject({ text: 'Rail loose', where: 'GAN-102 Studio 2', who: 'Bram', state: 'open', mayTakeBack: true, photos: [{ fileId: 'act-7' }] })
    expect(withActs(job, [found, act('findingBack', '09:03', { mark: 'm-1' })], 'Bram').findings).toEqual([])
    expect(withActs(job, [act('finding', '09:00', { ...found.input, fixedNow: true } as never)], 'Bram').findings[0]!.state).toBe('fixed')
  })
  test('a reading is the newest of its meter', () => {
    const [meter] = withActs(
      job,
      [act('reading', '09:00', { meterId: 3, value: '12', answer: 'exchanged' }), act('reading', '09:01', { meterId: 4, value: '1' })],
      '',
    ).meters
    expect(meter).toEqual({ id: 3, readings: [{ value: '12', at: at('09:00'), anew: true }], readHere: '12' })
  })
  test('downtime said again under its mark is put right', () => {
    const began = act('downtime', '09:00', { mark: 'd-1', fromAt: at('08:00'), reason: 'Tripped' })
    const ended = act('downtime', '09:30', { mark: 'd-1', fromAt: at('08:00'), untilAt: at('09:30'), reason: 'Tripped' })
    expect(withActs(job, [began], 'Bram').downtimes).toMatchObject([{ untilAt: null, reason: 'Tripped', who: 'Bram' }])
    expect(withActs(job, [began, ended], 'Bram').downtimes).toMatchObject([{ untilAt: at('09:30') }])
  })
  test('whoever works alone checks in from when they start to work until they stop', () => {
    const due = (...acts: RecordedAct[]) => withActs(job, acts, '').alone!.dueAt
    const work = act('stint', '09:00', { kind: 'work' })
    expect(due(act('stint', '08:30', { kind: 'travel' }))).toBeNull()
    expect(due(work)).toBe(at('09:30'))
    expect(due(work, act('checkIn', '09:20', {}))).toBe(at('09:50'))
    expect(due(work, act('stint', '09:30', { kind: 'break' }))).toBeNull()
    expect(due(work, act('stop', '09:40', {}))).toBeNull()
  })
})
