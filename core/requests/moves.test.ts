import { Refusal } from '#core/kit'
import { formReasons, moveRequest, REQUEST_MOVES, REQUEST_STATES, requestMoveReasons, whyIgnored } from '#core/requests'
import type { MailFacts, Question, RequestFacts, RequestMove, RequestState } from '#core/requests'
import { answerReasons } from '#core/requests'

const whole: RequestFacts = { state: 'new', placeId: 1, assetId: null, categoryId: 2, priority: 'routine', payerId: 3 }
const AGREED: Record<RequestMove, [RequestState[], RequestState]> = {
  accept: [['new', 'asked'], 'accepted'],
  ask: [['new'], 'asked'],
  answer: [['asked'], 'new'],
  decline: [['new', 'asked'], 'declined'],
  join: [['new', 'asked'], 'joined'],
  begin: [['new'], 'accepted'],
}
const MOVES = Object.keys(AGREED) as RequestMove[]

test('the moves are those agreed', () => expect(Object.keys(REQUEST_MOVES).sort()).toEqual([...MOVES].sort()))

test.each(MOVES)('%s: from the agreed states alone, to the agreed state', (move) => {
  const [from, to] = AGREED[move]
  for (const state of REQUEST_STATES)
    expect([state, requestMoveReasons({ ...whole, state }, move).map((reason) => reason.code)]).toEqual([state, from.includes(state) ? [] : ['wrong_state']])
  expect(moveRequest({ ...whole, state: from[0]! }, move, 'because')).toBe(to)
})

test.each([
  [{ placeId: null }, 'place_missing', 'placeId'],
  [{ categoryId: null }, 'category_missing', 'categoryId'],
  [{ priority: null }, 'priority_missing', 'consequence'],
  [{ payerId: null }, 'payer_missing', 'payerId'],
])('accepting with %j: %s', (broken, code, field) => {
  expect(requestMoveReasons({ ...whole, ...broken }, 'accept').map((reason) => [reason.code, reason.field])).toEqual([[code, field]])
})
test('beginning on the spot needs a place and a payer, and nothing else', () => {
  const codes = (broken: object) => requestMoveReasons({ ...whole, ...broken }, 'begin').map(({ code }) => code)
  expect(codes({ categoryId: null, priority: null })).toEqual([])
  expect(codes({ placeId: null, payerId: null })).toEqual(['place_missing', 'payer_missing'])
})
test('an asset says where it is', () => expect(requestMoveReasons({ ...whole, placeId: null, assetId: 4 }, 'accept')).toEqual([]))

test('what a reporter reads has to be written', () => {
  const needed = MOVES.filter((move) => {
    try {
      moveRequest({ ...whole, state: AGREED[move][0][0]! }, move, ' ')
      return false
    } catch (error) {
      expect(error).toBeInstanceOf(Refusal)
      return true
    }
  })
  expect(needed).toEqual(['ask', 'answer', 'decline'])
})

describe('limits of questions', () => {
  const number: Question = { code: 'shows', label: 'What does it show?', kind: 'number', required: false, least: -80, most: 30 }
  test.each([
    ['-80', true],
    ['30', true],
    ['-80.1', false],
    ['30,5', false],
    ['warm', false],
    ['', true],
  ])('%s: %s', (answer, taken) => expect(answerReasons([number], { shows: answer })).toHaveLength(taken ? 0 : 1))

  test('a form whose least is more than its most is not used; as much is', () => {
    expect(formReasons([{ ...number, least: 31 }]).map((reason) => reason.sentence)).toEqual(['The least is more than the most.'])
    expect(formReasons([{ ...number, least: 30 }])).toEqual([])
  })
})

describe('automatic mail is refused (RFC 3834 section 2, RFC 5321 section 4.5.5)', () => {
  const mail = (more: Partial<MailFacts> & { headers?: Record<string, string> } = {}): MailFacts => ({
    sender: 'aoife@reporter.example',
    headers: {},
    own: ['desk@place.example'],
    ...more,
  })
  test.each<[string, MailFacts]>([
    ['an empty return path', mail({ sender: '' })],
    ['auto-generated', mail({ headers: { 'auto-submitted': 'auto-generated' } })],
    ['auto-replied, in capitals', mail({ headers: { 'auto-submitted': 'Auto-Replied; owner-email="x@y.example"' } })],
    ...['bulk', 'junk', 'list', 'auto_reply'].map((precedence): [string, MailFacts] => [precedence, mail({ headers: { precedence } })]),
    ['a list', mail({ headers: { 'list-id': '<all.place.example>' } })],
    ['a list one can leave', mail({ headers: { 'list-unsubscribe': '' } })],
    ['a mail server', mail({ sender: 'MAILER-DAEMON@place.example' })],
    ['a delivery report', mail({ headers: { 'content-type': 'multipart/report; report-type=delivery-status' } })],
    ['ourselves', mail({ sender: 'Desk@Place.example' })],
  ])('%s', (_what, facts) => expect(whyIgnored(facts)).toMatch(/^It /))

  test.each<[string, MailFacts]>([
    ['a person', mail()],
    ['who says so', mail({ headers: { 'auto-submitted': 'no' } })],
    ['of first class', mail({ headers: { precedence: 'first-class' } })],
  ])('and not of %s', (_what, facts) => expect(whyIgnored(facts)).toBeNull())
})
