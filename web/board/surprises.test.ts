import type { Board, BoardVisit, WaitingOrder } from '#contract/board'
import { conflictsOf } from '#core/board'
import { surprisesOn } from './surprises'

const NOW = '2026-11-23T10:30:00.000Z'
const visit = (id: number, from: string, until: string, more: Partial<BoardVisit> = {}) =>
  ({
    id,
    number: `W-${id}`,
    from: `2026-11-23T${from}:00.000Z`,
    until: `2026-11-23T${until}:00.000Z`,
    state: 'planned',
    path: '/1/2/3/4/',
    ...more,
  }) as BoardVisit
const board = (visits: BoardVisit[], away: { from: string; until: string }[] = [], waiting: Partial<WaitingOrder>[] = []) =>
  ({ now: NOW, people: [{ id: 1, name: 'Bram', visits, away }], waiting }) as unknown as Board
const says = (one: Board) =>
  surprisesOn(one, (judged) => {
    const span = ({ from, until }: { from: string; until: string }) => ({ from: new Date(from), until: new Date(until) })
    const person = one.people[0]!
    return conflictsOf(
      { tradeId: null, trade: null, skills: [], path: judged.path, window: null, target: null, between: [] },
      {
        name: person.name,
        tradeIds: [],
        skills: [],
        shifts: [{ from: new Date('2026-11-23T00:00:00Z'), until: new Date('2026-11-24T00:00:00Z') }],
        away: person.away.map(span),
        visits: person.visits
          .filter(({ id, state }) => id !== judged.id && state !== 'ended')
          .map((other) => ({ ...span(other), number: other.number, path: other.path })),
      },
      span(judged),
      new Date(NOW),
      'Europe/Dublin',
    )
  }).map(({ sentence }) => sentence)

test('what can be made as it stands is no surprise', () => {
  expect(says(board([visit(1, '11:00', '12:00'), visit(2, '12:00', '13:00')]))).toEqual([])
  expect(says(board([visit(1, '09:00', '10:00')]))).toEqual([])
})

test('somebody away, and two over each other', () => {
  expect(says(board([visit(1, '11:00', '12:00')], [{ from: '2026-11-23T00:00:00Z', until: '2026-11-24T00:00:00Z' }]))).toEqual([
    'W-1 cannot be made as it is planned: Bram is away then.',
  ])
  expect(says(board([visit(1, '11:00', '12:00'), visit(2, '11:30', '13:00')]))).toHaveLength(2)
})

test('work past its planned end, once the next cannot be reached in time: over it already, or too little left for the way', () => {
  const running = visit(1, '09:00', '10:30', { state: 'on_site', until: NOW })
  expect(says(board([running, visit(2, '10:15', '11:00')]))).toEqual(['W-1 takes longer than planned: Bram does not reach W-2 in time.'])
  expect(says(board([running, visit(2, '10:31', '11:30', { path: '/1/9/9/9/' })]))).toEqual(['W-1 takes longer than planned: Bram does not reach W-2 in time.'])
  expect(says(board([running, visit(2, '11:30', '12:30', { path: '/1/9/9/9/' })]))).toEqual([])
  // It runs, and is not over yet.
  expect(says(board([{ ...running, until: '2026-11-23T10:40:00.000Z' }, visit(2, '10:41', '11:30', { path: '/1/9/9/9/' })]))).toEqual([])
})

test('an emergency nobody is planned for comes first; one on hold waits for something else', () => {
  const order = (number: string, more: Partial<WaitingOrder>) =>
    ({ number, summary: 'Water in the lift', state: 'ready', priority: 'emergency', ...more }) as WaitingOrder
  const all = board(
    [visit(1, '11:00', '12:00'), visit(2, '11:30', '13:00')],
    [],
    [order('W-9', {}), order('W-8', { state: 'on_hold' }), order('W-7', { priority: 'urgent' })],
  )
  expect(says(all)[0]).toBe('W-9 is an emergency, and nobody is planned for it: Water in the lift.')
  expect(says(all)).toHaveLength(3)
})
