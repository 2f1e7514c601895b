import { answerReasons, answersFromAttributes, attributesOf, MOST_DAYS, reportStatus, spanOf } from '#core/requests'
import type { Question } from '#core/requests'

/** Open311 GeoReport v2 (published open standard; its datatypes and ninety days from memory). */
const questions: Question[] = [
  { code: 'runs', label: 'Does it run?', kind: 'yes_no', required: true },
  { code: 'why', label: 'Why not?', kind: 'choice', options: ['flat', 'wet'], required: true, when: { code: 'runs', is: 'no' } },
  { code: 'km', label: 'Kilometres', kind: 'meter', unit: 'km', least: 0, required: false },
  { code: 'due', label: 'Needed on', kind: 'date', required: false },
  { code: 'more', label: 'Anything else?', kind: 'text', required: false },
]
const now = new Date('2026-11-23T10:30:00Z')
const DAY = 86_400_000

test('questions are attributes: every kind in a datatype of the standard, in order, conditions in words', () => {
  const attributes = attributesOf(questions)
  expect(attributes.map((one) => [one.code, one.datatype, one.required, one.order])).toEqual([
    ['runs', 'singlevaluelist', true, 1],
    ['why', 'singlevaluelist', false, 2],
    ['km', 'number', false, 3],
    ['due', 'datetime', false, 4],
    ['more', 'text', false, 5],
  ])
  expect(attributes[1]!.datatype_description).toBe('when “Does it run?” is no')
  expect(attributes[1]!.values).toEqual([
    { key: 'flat', name: 'flat' },
    { key: 'wet', name: 'wet' },
  ])
  expect(attributes[2]!.datatype_description).toBe('in km, at least 0')
  expect(attributes[4]!.values).toBeUndefined()
})

test('what a program sends is held to the same rules as what a person answers; a datetime becomes its day in the zone', () => {
  const answers = answersFromAttributes(questions, { runs: ' no ', why: 'wet', due: '2026-12-01T23:30:00Z', other: 'x', more: '' }, 'Europe/Dublin')
  expect(answers).toEqual({ runs: 'no', why: 'wet', due: '2026-12-01' })
  expect(answersFromAttributes(questions, { due: '2026-07-01T23:30:00Z' }, 'Europe/Dublin')).toEqual({ due: '2026-07-02' })
  expect(answerReasons(questions, answers)).toEqual([])
  expect(answerReasons(questions, answersFromAttributes(questions, { runs: 'no', due: 'soon' }, 'Europe/Dublin')).map((one) => one.field)).toEqual([
    'answers.why',
    'answers.due',
  ])
})

test('a search spans at most ninety days', () => {
  expect(spanOf(undefined, undefined, now)).toEqual({ from: new Date(now.getTime() - MOST_DAYS * DAY), to: now })
  const start = '2026-01-01T00:00:00Z'
  expect(spanOf(start, undefined, now)).toEqual({ from: new Date(start), to: new Date(new Date(start).getTime() + MOST_DAYS * DAY) })
  expect(spanOf('2026-11-20T00:00:00Z', undefined, now).to).toEqual(now)
  expect(spanOf(start, '2026-11-01T00:00:00Z', now).from).toEqual(new Date(new Date('2026-11-01T00:00:00Z').getTime() - MOST_DAYS * DAY))
  expect(spanOf('2026-11-01T02:00:00+02:00', '2026-11-02', now).from.toISOString()).toBe('2026-11-01T00:00:00.000Z')
  expect(() => spanOf('soon', undefined, now)).toThrow('start_date is no W3C date')
  expect(() => spanOf('2026-11-02T00:00:00Z', '2026-11-01T00:00:00Z', now)).toThrow('before start_date')
})

test('two states of the standard for all of ours', () => {
  expect((['received', 'question', 'looking', 'scheduled', 'working', 'waiting'] as const).map(reportStatus)).toEqual(Array(6).fill('open'))
  expect((['done', 'closed'] as const).map(reportStatus)).toEqual(['closed', 'closed'])
})
