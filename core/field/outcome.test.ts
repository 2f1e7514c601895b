import { outcomeListsFor, whatWasDone } from '#core/field'

test('what is offered fits the class of the asset, and is short', () => {
  const [lift, chiller, roof, all] = ['D1010', 'D3030', 'B3010', null].map(outcomeListsFor) as [
    ReturnType<typeof outcomeListsFor>,
    ReturnType<typeof outcomeListsFor>,
    ReturnType<typeof outcomeListsFor>,
    ReturnType<typeof outcomeListsFor>,
  ]
  expect(lift.symptoms).toContain('Door does not close')
  expect(lift.symptoms).not.toContain('Leaking')
  expect(chiller.causes).toContain('Low charge')
  expect(chiller.fixes).toContain('Topped up')
  expect(roof.causes).toContain('Weather')
  expect(roof.symptoms).not.toContain('No power')
  for (const one of [lift, chiller, roof])
    for (const name of ['symptoms', 'causes', 'fixes'] as const) {
      expect(one[name].length).toBeLessThanOrEqual(all[name].length)
      expect(one[name].length).toBeGreaterThanOrEqual(5)
      expect(all[name]).toEqual(expect.arrayContaining(one[name]))
    }
})

test('whoever reported it reads in plain words what was done, and nothing that was written for the desk', () => {
  for (const fix of outcomeListsFor(null).fixes) expect(whatWasDone(fix)).toMatch(/^We /)
  expect([whatWasDone('Rewound'), whatWasDone(null), whatWasDone('')]).toEqual([null, null, null])
})
