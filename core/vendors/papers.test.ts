import fc from 'fast-check'
import { byFitness, papersMissing, papersOn, shareInterval } from '#core/vendors'

const PAPERS = { contractUntil: '2026-11-22', insuranceUntil: '2026-11-23', licenceUntil: null }

test('a paper counts on its last day; what is not known has not ended', () => {
  expect(papersOn(PAPERS, '2026-11-23').map(({ what, stands }) => [what, stands])).toEqual([
    ['Insurance', 'in_force'],
    ['Licence', 'unknown'],
    ['Contract', 'ended'],
  ])
  expect(papersMissing(papersOn(PAPERS, '2026-11-23'))).toEqual([])
  expect(papersMissing(papersOn(PAPERS, '2026-11-24')).map(({ what }) => what)).toEqual(['Insurance'])
})

test('the score interval: 8 of 10 at 95 % is 0.490 to 0.943 (Wilson 1927)', () => {
  const { least, most } = shareInterval({ onTime: 8, visits: 10 })
  expect([least.toFixed(3), most.toFixed(3)]).toEqual(['0.490', '0.943'])
  expect(shareInterval({ onTime: 0, visits: 0 })).toEqual({ least: 0, most: 1 })
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 5_000 }), fc.double({ min: 0, max: 1, noNaN: true }), (visits, share) => {
      const onTime = Math.round(visits * share)
      const seen = shareInterval({ onTime, visits })
      expect(0 <= seen.least && seen.least <= onTime / visits + 1e-12 && onTime / visits <= seen.most + 1e-12 && seen.most <= 1).toBe(true)
    }),
  )
})

test('in order: the trade, papers, a contract, then who comes on time; two lucky visits do not beat two hundred', () => {
  const one = (name: string, more: Partial<Parameters<typeof byFitness>[0]> = {}) => ({
    name,
    hasTrade: true,
    papers: papersOn({ contractUntil: '2027-01-01', insuranceUntil: '2027-01-01', licenceUntil: null }, '2026-11-23'),
    punctuality: { onTime: 0, visits: 0 },
    ...more,
  })
  const rows = [
    one('Other trade', { hasTrade: false, punctuality: { onTime: 100, visits: 100 } }),
    one('Uninsured', { papers: papersOn({ contractUntil: '2027-01-01', insuranceUntil: '2026-01-01', licenceUntil: null }, '2026-11-23') }),
    one('No contract', { papers: papersOn({ contractUntil: null, insuranceUntil: '2027-01-01', licenceUntil: null }, '2026-11-23') }),
    one('Two lucky', { punctuality: { onTime: 2, visits: 2 } }),
    one('Two hundred good', { punctuality: { onTime: 190, visits: 200 } }),
    one('Bland'),
    one('Anew'),
  ]
  expect(rows.sort(byFitness).map(({ name }) => name)).toEqual(['Two hundred good', 'Two lucky', 'Anew', 'Bland', 'No contract', 'Uninsured', 'Other trade'])
})
