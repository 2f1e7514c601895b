import fc from 'fast-check'
import { asRequest } from './report'

test('the first sentence of what was said is the line, all of it the description', () => {
  expect(asRequest('The tap drips. It has since Monday, and the cup is full.', null)).toEqual({
    summary: 'The tap drips',
    description: 'The tap drips. It has since Monday, and the cup is full.',
  })
  expect(asRequest('Door 2.14 sticks\nat the bottom', null).summary).toBe('Door 2.14 sticks')
  expect(asRequest('Is it hot in here? Yes.', null).summary).toBe('Is it hot in here?')
  expect(asRequest(' loose rail ', 'KEL-9999').description).toBe('loose rail\nWhere: KEL-9999')
})

test('whatever is said, there is a line of a request’s length and nothing is lost', () => {
  fc.assert(
    fc.property(
      fc.string({ minLength: 1, maxLength: 400 }).filter((text) => text.trim() !== ''),
      (text) => {
        const { summary, description } = asRequest(text, null)
        expect(description).toBe(text.trim())
        expect(summary.length).toBeLessThanOrEqual(120)
      },
    ),
  )
})
