import {
  CONSEQUENCES,
  DEFAULT_MATRIX,
  HAZARD_TABLE,
  hazardLevel,
  LIKELIHOODS,
  PRIORITIES,
  priorityOf,
  prioritySaid,
  priorityWithHazard,
  SEVERITIES,
  URGENCIES,
} from '#core/requests'

describe('priority', () => {
  test('never falls when more people suffer or it can wait less', () => {
    const rank = (consequence: number, urgency: number) => PRIORITIES.indexOf(DEFAULT_MATRIX[CONSEQUENCES[consequence]!][URGENCIES[urgency]!])
    for (let c = 0; c < CONSEQUENCES.length; c++)
      for (let u = 0; u < URGENCIES.length; u++) {
        if (c) expect(rank(c, u)).toBeLessThanOrEqual(rank(c - 1, u))
        if (u) expect(rank(c, u)).toBeLessThanOrEqual(rank(c, u - 1))
      }
  })

  test('explains itself in a sentence', () => {
    expect(priorityOf('room', 'today')).toEqual({ priority: 'urgent', sentence: 'Urgent, because a room is affected and it has to be done today.' })
  })

  test('follows the matrix it is given', () => {
    const strict = { ...DEFAULT_MATRIX, nobody: { ...DEFAULT_MATRIX.nobody, can_wait: 'emergency' as const } }
    expect(priorityOf('nobody', 'can_wait', strict).priority).toBe('emergency')
  })
})

describe('hazard', () => {
  // MIL-STD-882E (2012), table III, risk assessment matrix, rows A to E over columns 1 to 4 (from memory).
  test.each([
    ['frequent', ['high', 'high', 'serious', 'medium']],
    ['probable', ['high', 'high', 'serious', 'medium']],
    ['occasional', ['high', 'serious', 'medium', 'low']],
    ['remote', ['serious', 'medium', 'medium', 'low']],
    ['improbable', ['medium', 'medium', 'medium', 'low']],
  ] as const)('%s is %j over catastrophic to negligible', (likelihood, levels) => {
    expect(SEVERITIES.map((severity) => hazardLevel(severity, likelihood))).toEqual(levels)
  })

  test('high is never less than an emergency; the rest leave the priority alone', () => {
    for (const priority of PRIORITIES) {
      expect(priorityWithHazard(priority, 'high')).toBe('emergency')
      for (const level of ['serious', 'medium', 'low', null] as const) expect(priorityWithHazard(priority, level)).toBe(priority)
    }
    expect(LIKELIHOODS).toHaveLength(5)
  })
})

describe('what has been said', () => {
  const said = { consequence: null, urgency: null, hazardSeverity: null, hazardLikelihood: null }
  test('half of it gives no priority; a high hazard alone does', () => {
    expect(prioritySaid({ ...said, consequence: 'room' }, DEFAULT_MATRIX, HAZARD_TABLE)).toBeNull()
    expect(prioritySaid({ ...said, hazardSeverity: 'catastrophic', hazardLikelihood: 'frequent' }, DEFAULT_MATRIX, HAZARD_TABLE)).toEqual({
      priority: 'emergency',
      sentence: 'Emergency, because its hazard is high.',
    })
  })

  test('the sentence says what it would be without the hazard; no hazard and half a hazard change nothing', () => {
    const room = { ...said, consequence: 'room' as const, urgency: 'today' as const }
    const plain = prioritySaid(room, DEFAULT_MATRIX, HAZARD_TABLE)!
    expect(prioritySaid({ ...room, hazardSeverity: 'none' }, DEFAULT_MATRIX, HAZARD_TABLE)).toEqual(plain)
    expect(prioritySaid({ ...room, hazardSeverity: 'critical' }, DEFAULT_MATRIX, HAZARD_TABLE)).toEqual(plain)
    expect(prioritySaid({ ...room, hazardSeverity: 'critical', hazardLikelihood: 'probable' }, DEFAULT_MATRIX, HAZARD_TABLE)).toEqual({
      priority: 'emergency',
      sentence: `Emergency, because its hazard is high; without it: ${plain.sentence}`,
    })
  })

  test('a table of the site’s own counts, and can never make a high hazard less than an emergency', () => {
    const strict = { ...HAZARD_TABLE, remote: ['high' as const, 'high' as const, 'low' as const, 'low' as const] }
    const at = (severity: 'critical' | 'marginal') =>
      prioritySaid({ consequence: 'nobody', urgency: 'can_wait', hazardSeverity: severity, hazardLikelihood: 'remote' }, DEFAULT_MATRIX, strict)!.priority
    expect(at('critical')).toBe('emergency')
    expect(at('marginal')).toBe('deferred')
  })
})
