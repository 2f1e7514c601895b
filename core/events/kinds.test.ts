import { ORDER_MOVE_NAMES } from '#core/orders'
import { REQUEST_MOVES } from '#core/requests'
import { EVENT_KINDS, EVENTS, eventRule, isActed } from './kinds'

const words = { time: (instant: string) => `<${instant}>`, money: (minor: number) => `#${minor}` }

test('every move of both lifecycles has its kind', () => {
  for (const move of ORDER_MOVE_NAMES) expect(EVENT_KINDS).toContain(`order.${move}`)
  for (const move of Object.keys(REQUEST_MOVES)) expect(EVENT_KINDS).toContain(`request.${move}`)
})

test('what reporters read of the work, and nothing else of it', () => {
  const told = EVENT_KINDS.filter((kind) => eventRule(kind).told)
  expect(told.sort()).toEqual(
    [
      ...['offer', 'choose', 'agree'].map((name) => `window.${name}`),
      ...['report', 'ask', 'answer', 'accept', 'decline', 'join', 'fixed', 'notFixed', 'undo', 'begin'].map((name) => `request.${name}`),
      ...['dispatch', 'moveVisit', 'start', 'check', 'reopen', 'cancel'].map((name) => `order.${name}`),
      'field.stint',
    ].sort(),
  )
  expect(EVENTS['order.dispatch'].told({ start: '2026-11-24T09:00:00Z' }, (instant) => `the day of ${instant}`)).toBe(
    'Planned for the day of 2026-11-24T09:00:00Z.',
  )
  expect(EVENTS['order.dispatch'].told({}, () => 'never')).toBe('Planned.')
  expect(EVENTS['order.moveVisit'].told({ start: '2026-11-25T09:00:00Z' }, () => 'Wednesday')).toBe('Planned for Wednesday now.')
  expect(EVENTS['order.moveVisit'].told({ start: '2026-11-25T09:00:00Z', fromStart: '2026-11-25T11:00:00Z' }, () => 'Wednesday')).toBe('')
})

test('the clock acts by itself at targets and ends alone; lines ask again when somebody may be somebody else', () => {
  expect(EVENT_KINDS.filter((kind) => !isActed(kind))).toEqual([
    'order.close_to',
    'order.past',
    'lone.overdue',
    'document.ending',
    'booking.late',
    'vendor.remind',
    'vendor.silent',
    'quote.remind',
    'quote.silent',
    'closure.told',
    'closure.clash',
  ])
  expect(EVENT_KINDS.filter((kind) => eventRule(kind).changesWho).sort()).toEqual([
    'device.end',
    'people.away',
    'people.back',
    'people.signOut',
    'setup.account',
  ])
  expect(EVENT_KINDS.filter((kind) => eventRule(kind).forTechnician)).toEqual(['leave.agree', 'leave.refuse'])
  expect(EVENT_KINDS.filter((kind) => eventRule(kind).takesJob).sort()).toEqual([
    'order.cancel',
    'order.dropVisit',
    'order.hold',
    'order.moveVisit',
    'order.recall',
    'order.reopen',
  ])
})

test('what stands behind a sentence is made from the facts; older events may lack some', () => {
  expect(EVENTS['order.dispatch'].about({ start: '2026-11-24T09:00:00Z' }, words)).toBe('for <2026-11-24T09:00:00Z>')
  expect(EVENTS['vendor.bill'].about({ number: 'B-1', netMinor: 5_000 }, words)).toBe('B-1, #5000 before tax')
  expect(EVENTS['field.stop'].about({ minutes: 25, stint: 'travel' })).toBe('after 25 min travel')
  expect(EVENTS['field.leave'].about({ result: 'part' }, words)).toBe('waiting for a part')
  for (const kind of EVENT_KINDS) expect(typeof (eventRule(kind).about?.({}, words) ?? '')).toBe('string')
})

test('a kind of earlier days says its name and is told to nobody', () => {
  expect(eventRule('order.flown')).toEqual({ says: 'order.flown', told: null, writes: false })
})
