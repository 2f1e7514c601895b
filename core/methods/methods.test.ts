import { quantile as reference } from 'd3-array'
import fc from 'fast-check'
import {
  afterReasons,
  contentReasons,
  fitOf,
  labourMinutes,
  limitsSay,
  METHOD_EVENTS,
  NO_CONTENT,
  NO_USE,
  openFirst,
  PLAIN_STEP,
  quantile,
  readStep,
  stepWaits,
  together,
  withoutMethod,
} from '#core/methods'
import type { MethodContent, MethodStep, OrderAsk, PlanLines, StepFields } from '#core/methods'

const step = (more: Partial<MethodStep> = {}): MethodStep => ({ ...PLAIN_STEP, text: 'Look', after: null, ...more })
const lines = (more: Partial<PlanLines> = {}): PlanLines => ({ labour: [], parts: [], tools: [], hazards: [], ...more })
const content = (more: Partial<MethodContent> = {}): MethodContent => ({ ...NO_CONTENT, ...more })

describe('what a method says', () => {
  test.each<[string, MethodContent, string[]]>([
    ['nothing at all', content(), []],
    ['a step without words', content({ steps: [step({ text: ' ' })] }), ['steps.0.text']],
    ['a value without a unit', content({ steps: [step({ kind: 'measured' })] }), ['steps.0.unit']],
    ['limits the wrong way round', content({ steps: [step({ kind: 'measured', unit: 'bar', least: 3, most: 2 })] }), ['steps.0.most']],
    ['one limit alone', content({ steps: [step({ kind: 'measured', unit: 'bar', least: 3 })] }), []],
    ['a choice of one', content({ steps: [step({ kind: 'choice', choices: ['Good', 'good'] })] }), ['steps.0.choices']],
    ['a step that waits for itself', content({ steps: [step({ after: 0 })] }), ['steps.0.after']],
    ['one that waits for a later one', content({ steps: [step({ after: 1 }), step()] }), ['steps.0.after']],
    ['one that waits for an earlier one', content({ steps: [step(), step({ after: 0 })] }), []],
    ['a trade twice', content({ labour: [1, 2, 1].map((tradeId) => ({ tradeId, people: 1, minutes: 10 })) }), ['labour.2.tradeId']],
    ['a part twice', content({ parts: [4, 4].map((partId) => ({ partId, quantity: '1' })) }), ['parts.1.partId']],
  ])('%s', (_name, said, fields) => expect(contentReasons(said).map(({ field }) => field)).toEqual(fields))
})

describe('several methods together', () => {
  test('add up: as many people as any wants, minutes in all, parts to the thousandth, what is said twice once', () => {
    const sum = together([
      lines({ labour: [{ tradeId: 1, people: 2, minutes: 30 }], parts: [{ partId: 7, quantity: '0.1' }], tools: [{ text: 'Ladder', equipmentId: null }] }),
      lines({
        labour: [
          { tradeId: 1, people: 1, minutes: 45 },
          { tradeId: 2, people: 1, minutes: 20 },
        ],
        parts: [{ partId: 7, quantity: '0.2' }],
        tools: [{ text: 'ladder', equipmentId: null }],
        hazards: [{ hazard: 'Fan', control: 'Isolate', permit: 'isolation' }],
      }),
    ])
    expect(sum.labour).toEqual([
      { tradeId: 1, people: 2, minutes: 53 },
      { tradeId: 2, people: 1, minutes: 20 },
    ])
    expect([sum.parts, sum.tools.length, sum.hazards.length]).toEqual([[{ partId: 7, quantity: '0.3' }], 1, 1])
  })

  test('ask for every skill any of them asks for, each once; those of a method that goes go along, unless another wants them', () => {
    const asks = (...skills: string[]) => lines({ labour: [{ tradeId: 1, people: 1, minutes: 30, skills }] })
    const [one, other] = [asks('Work at height', 'First aid'), asks('work at height', 'Digging')]
    const both = together([one, other])
    expect(both.labour).toEqual([{ tradeId: 1, people: 1, minutes: 60, skills: ['Digging', 'First aid', 'Work at height'] }])
    expect(withoutMethod(both, one, [other]).labour).toEqual([{ tradeId: 1, people: 1, minutes: 30, skills: ['Digging', 'Work at height'] }])
    expect(withoutMethod(both, other, [lines({ labour: [{ tradeId: 1, people: 1, minutes: 5 }] })]).labour[0]!.skills).toEqual(['First aid'])
  })

  const plan = fc.record({
    labour: fc.uniqueArray(
      fc.record({ tradeId: fc.integer({ min: 1, max: 4 }), people: fc.integer({ min: 1, max: 3 }), minutes: fc.integer({ min: 1, max: 200 }) }),
      {
        selector: ({ tradeId }) => tradeId,
        maxLength: 3,
      },
    ),
    parts: fc.uniqueArray(fc.record({ partId: fc.integer({ min: 1, max: 4 }), quantity: fc.integer({ min: 1, max: 5_000 }).map((n) => String(n / 1000)) }), {
      selector: ({ partId }) => partId,
      maxLength: 3,
    }),
    tools: fc.array(fc.record({ text: fc.constantFrom('Ladder', 'Meter', 'Pump'), equipmentId: fc.constant(null) }), { maxLength: 3 }),
    hazards: fc.array(fc.record({ hazard: fc.constantFrom('Fan', 'Height'), control: fc.constant('Care'), permit: fc.constant(null) }), { maxLength: 2 }),
  }) as fc.Arbitrary<PlanLines>

  test('no minute of work is lost, and at most one of each person is won by rounding', () => {
    fc.assert(
      fc.property(fc.array(plan, { maxLength: 4 }), (plans) => {
        const asked = plans.reduce((all, { labour }) => all + labourMinutes(labour), 0)
        const sum = together(plans).labour
        const people = sum.reduce((all, line) => all + line.people, 0)
        expect(labourMinutes(sum)).toBeGreaterThanOrEqual(asked)
        expect(labourMinutes(sum)).toBeLessThanOrEqual(asked + people * plans.length)
      }),
    )
  })

  test('what came with a method goes with it: its parts to the thousandth, its tools and hazards but for those another brought', () => {
    fc.assert(
      fc.property(plan, plan, (one, other) => {
        const rest = withoutMethod(together([one, other]), one, [other])
        const quantities = (all: PlanLines) => Object.fromEntries(all.parts.map(({ partId, quantity }) => [partId, Number(quantity)]))
        expect(quantities(rest)).toEqual(quantities(other))
        const words = (all: PlanLines) => [...new Set(all.tools.map(({ text }) => text))].sort()
        expect([words(rest), rest.hazards.length]).toEqual([words(other), together([other]).hazards.length])
        expect(rest.labour.map(({ tradeId }) => tradeId).sort()).toEqual(other.labour.map(({ tradeId }) => tradeId).sort())
      }),
    )
  })

  test('what was changed by hand since is not taken below nought', () => {
    const gone = lines({ labour: [{ tradeId: 1, people: 1, minutes: 60 }], parts: [{ partId: 7, quantity: '2' }] })
    const changed = lines({ labour: [{ tradeId: 1, people: 1, minutes: 30 }], parts: [{ partId: 7, quantity: '5' }] })
    expect(withoutMethod(changed, gone, [])).toEqual(lines({ parts: [{ partId: 7, quantity: '3' }] }))
  })
})

describe('a step is done', () => {
  const measured: StepFields = step({ kind: 'measured', unit: 'bar', least: 1.2, most: 3.5 })
  test.each<[string, StepFields, string | null, boolean, unknown]>([
    ['plain, whatever is said', step(), 'x', false, { value: null, outside: false }],
    ['within its limits', measured, '2.50', false, { value: '2.5', outside: false }],
    ['on its limit', measured, '3.5', false, { value: '3.5', outside: false }],
    ['above them', measured, '3.51', false, { value: '3.51', outside: true }],
    ['below them', measured, '-1', false, { value: '-1', outside: true }],
    ['without limits', step({ kind: 'measured', unit: 'h' }), '12345', false, { value: '12345', outside: false }],
    ['with an answer there is', step({ kind: 'choice', choices: ['Good', 'Worn'] }), 'Worn', false, { value: 'Worn', outside: false }],
    ['with its photo', step({ kind: 'photo' }), null, true, { value: null, outside: false }],
  ])('%s', (_name, asked, value, hasPhoto, read) => expect(readStep(asked, { value, hasPhoto })).toEqual(read))

  test.each<[string, StepFields, string | null, string]>([
    ['no number', measured, 'three', 'value_missing'],
    ['nothing', measured, null, 'value_missing'],
    ['a number in powers', measured, '1e3', 'value_missing'],
    ['an answer nobody offered', step({ kind: 'choice', choices: ['Good', 'Worn'] }), 'good', 'answer_missing'],
    ['no photo', step({ kind: 'photo' }), null, 'photo_missing'],
  ])('%s is refused', (_name, asked, value, code) =>
    expect(readStep(asked, { value, hasPhoto: false })).toEqual({ reasons: [expect.objectContaining({ code })] }),
  )

  test('not before the one it waits for is done or left out', () => {
    const all = [
      { id: 1, state: 'open' as const, text: 'Isolate' },
      { id: 2, state: 'left' as const, text: 'Call' },
    ]
    expect(stepWaits({ afterId: 1 }, all).map(({ sentence }) => sentence)).toEqual(['It waits for “Isolate”. Do that first.'])
    expect([...stepWaits({ afterId: 2 }, all), ...stepWaits({ afterId: null }, all), ...stepWaits({ afterId: 9 }, all)]).toEqual([])
  })

  test('steps never wait for each other in a ring, whoever is put behind whom', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.integer({ min: 1, max: 6 }), fc.integer({ min: 1, max: 6 })), { maxLength: 30 }), (changes) => {
        const after = new Map<number, number | null>([1, 2, 3, 4, 5, 6].map((id) => [id, null]))
        const all = () => [...after].map(([id, afterId]) => ({ id, afterId }))
        for (const [id, to] of changes) if (!afterReasons(id, to, all()).length) after.set(id, to)
        for (const id of after.keys()) {
          const seen = new Set<number>()
          for (let at: number | null = id; at !== null; at = after.get(at) ?? null) {
            expect(seen.has(at)).toBe(false)
            seen.add(at)
          }
        }
      }),
    )
    expect(afterReasons(1, 9, [{ id: 1, afterId: null }])[0]!.code).toBe('step_unknown')
  })

  test('what comes first and is open is told; limits are said in words', () => {
    const all = [
      { first: true, state: 'open' as const },
      { first: true, state: 'done' as const },
      { first: false, state: 'open' as const },
    ]
    expect(openFirst(all)).toEqual([all[0]])
    const say = (least: number | null, most: number | null, unit: string | null = 'bar') => limitsSay({ unit, least, most })
    expect([say(2, 3), say(2, null), say(null, 3), say(null, null), say(2, 3, null)]).toEqual(['2 to 3 bar', 'at least 2 bar', 'at most 3 bar', '', '2 to 3'])
  })
})

describe('what fits an order', () => {
  const ask: OrderAsk = { kind: 'preventive', classCode: 'D3030', categoryId: 15, tradeId: 2, text: 'Yearly service of the cold room plant' }
  const method = { name: 'Cold room service', kind: 'preventive' as const, classCode: 'D3030', categoryId: 15, tradeId: 2 }

  test('says first how often it was used and how long that took, then why it fits', () => {
    const use = { ...NO_USE, inClass: { used: 12, of: 14 }, onAsset: { used: 1, of: 1 }, minutes: [90, 100, 110, 120, 155] }
    expect(fitOf(method, ask, use).reasons).toEqual([
      'Used on the last preventive order of this asset',
      'Used on 12 of the last 14 preventive orders of such assets (cooling generating systems)',
      'Took 1 h 50 min at the median, up to 2 h 21 min in nine of ten',
      'Made for cooling generating systems',
      'Made for this category',
    ])
  })

  test('for another kind of work or class it does not fit, unless it was used here', () => {
    expect(fitOf({ ...method, kind: 'repair' }, ask).score).toBe(0)
    expect(fitOf({ ...method, classCode: 'D1010' }, ask).score).toBe(0)
    expect(fitOf({ ...method, kind: 'repair' }, ask, { ...NO_USE, onAsset: { used: 3, of: 4 } }).score).toBeGreaterThan(0)
  })

  test('trade and kind alone say too little; words in common say something, common words nothing', () => {
    const bare = { name: 'Something', kind: null, classCode: null, categoryId: null, tradeId: 2 }
    expect(fitOf(bare, ask).score).toBe(0)
    expect(fitOf({ ...bare, name: 'Plant room, cold' }, ask).reasons).toEqual(['The order speaks of plant, cold', 'Done by this trade'])
    expect(fitOf({ ...bare, name: 'Service of the room' }, ask).score).toBe(0)
  })

  test('the more it was used, the better it fits; a few orders say nothing of a class', () => {
    const score = (used: number, of: number) => fitOf(method, ask, { ...NO_USE, inClass: { used, of } }).score
    expect(score(12, 14)).toBeGreaterThan(score(3, 14))
    expect(score(2, 2)).toBe(score(0, 0))
  })

  test('quantiles are those of the published definition, held against another implementation (d3-array)', () => {
    expect(quantile([5], 0.9)).toBe(5)
    // Type 7 of Hyndman and Fan (1996), by hand: 1 + 0.75 * 3 of four values.
    expect(quantile([1, 2, 3, 4], 0.75)).toBe(3.25)
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 500 }), { minLength: 1, maxLength: 31 }), fc.double({ min: 0, max: 1, noNaN: true }), (values, at) =>
        expect(quantile(values, at)).toBeCloseTo(reference(values, at)!, 9),
      ),
    )
  })
})

test('the timeline tells each change in its words', () => {
  expect([
    METHOD_EVENTS['method.edition'].about({ edition: 2, note: 'two pumps' }),
    METHOD_EVENTS['plan.apply'].about({ methods: 'M-1 Service' }),
    METHOD_EVENTS['step.give'].about({ to: 'Petra', step: 'Order the thermostat' }),
    METHOD_EVENTS['step.do'].about({ step: 'Pressure', value: '4 bar', outside: true, left: false }),
    METHOD_EVENTS['step.do'].about({ step: 'Pressure', value: null, outside: false, left: true }),
  ]).toEqual(['version 2: two pumps', 'M-1 Service', 'to Petra: Order the thermostat', 'Pressure, 4 bar, outside its limits', 'Pressure, left out'])
})
