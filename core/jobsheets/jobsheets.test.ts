import { COPIES, copyOf, countOf, toBring } from '#core/jobsheets'

test('each piece of equipment is brought once, whether planned, kept or both; the same tool is counted', () => {
  const tools = [
    { text: 'Ladder', equipmentId: 1 },
    { text: 'Hoist', equipmentId: 2 },
    { text: 'Pipe wrench', equipmentId: null },
    { text: 'Pipe wrench', equipmentId: null },
  ]
  const bring = toBring(tools, [
    { equipmentId: 1, name: 'LD-01 Ladder' },
    { equipmentId: 7, name: 'CM-07 Camera' },
  ])
  expect(bring).toEqual([
    { text: 'LD-01 Ladder', many: 1 },
    { text: 'CM-07 Camera', many: 1 },
    { text: 'Hoist', many: 1 },
    { text: 'Pipe wrench', many: 2 },
  ])
  expect([countOf(bring), toBring([], []), countOf([])]).toEqual([5, [], 0])
})

test('amounts stand on the copy of the desk alone, the note for the payer where they read it', () => {
  const whole = {
    money: { total: 1 },
    noteForPayer: 'Under your lease',
    noteForWorker: 'Mind the dog',
    steps: [1],
    earlier: [1],
    access: ['Key'],
    contact: 'Aoife',
  }
  expect(COPIES.map((copy) => [copy, copyOf(copy, whole)])).toEqual([
    ['worker', { ...whole, money: null, noteForPayer: null }],
    ['desk', whole],
    ['payer', { money: null, noteForPayer: 'Under your lease', noteForWorker: null, steps: [], earlier: [], access: [], contact: null }],
  ])
})
