import { ORDER_STATES } from './states'
import { waitsFor } from './waiting'

const nobody = { hold: null, lead: null, who: null, asked: [] }

test.each([
  ['draft', {}, 'somebody to lead it'],
  ['draft', { lead: 'Maren Quill' }, 'Maren Quill to plan it'],
  ['to_approve', {}, 'somebody whose limit covers it to approve it'],
  ['to_approve', { asked: ['Osric Vane', 'Ines Ferrall'] }, 'Osric Vane and Ines Ferrall to approve it'],
  ['ready', { who: 'Bram Oyelaran' }, 'somebody to be sent'],
  ['dispatched', { who: 'Bram Oyelaran' }, 'Bram Oyelaran to start'],
  ['dispatched', {}, 'somebody to be sent'],
  ['on_job', { who: 'Bram Oyelaran' }, 'Bram Oyelaran to finish'],
  ['on_job', {}, 'somebody to go on with it'],
  ['on_hold', { hold: 'part' }, 'a part'],
  ['on_hold', {}, 'what it is on hold for'],
  ['done', {}, 'somebody to check it'],
  ['checked', {}, 'somebody to charge it'],
] as const)('%s with %j waits for %s', (state, known, words) => {
  expect(waitsFor({ ...nobody, ...known, state })).toBe(words)
})

test('what is over waits for nobody', () => {
  for (const state of ORDER_STATES) expect(waitsFor({ ...nobody, state }) === 'nobody').toBe(state === 'closed' || state === 'cancelled')
})
