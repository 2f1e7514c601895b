import {
  answerReasons,
  answersFromAttributes,
  answerText,
  attributesOf,
  cleanAnswers,
  dayWords,
  fitMail,
  isUndecided,
  LONGEST_DESCRIPTION,
  LONGEST_SUMMARY,
  mayMailStranger,
  moveRequest,
  Precedents,
  progressForOthers,
  progressOf,
  readTag,
  replySecret,
  REQUEST_STATES,
  requestMoveReasons,
  spanOf,
  splitQuoted,
  STRANGER_LIMITS,
  summaryOfMail,
  taggedAddress,
  whyIgnored,
} from '#core/requests'
import type { Decided, ProgressFacts, Question, RequestFacts } from '#core/requests'

/** What people read, to the letter, and the last value that is still in. */

const several: Question = { code: 'where', label: 'Where?', kind: 'several', options: ['floor', 'wall'], required: true }
const plain = (kind: Question['kind'], more: Partial<Question> = {}): Question => ({ code: 'q', label: 'Q', kind, required: false, ...more })
const wrongOf = (question: Question, answer: unknown) => answerReasons([question], { [question.code]: answer as string })[0]?.sentence ?? null

describe('answers', () => {
  test('of several, all have to be offered, and each is kept once without blanks', () => {
    expect(wrongOf(several, ['floor', 'wall'])).toBeNull()
    expect(wrongOf(several, ['floor', 'roof'])).toBe('Choose among the values offered.')
    expect(wrongOf(several, 'floor')).toBeNull()
    expect(wrongOf({ ...several, options: undefined }, ['floor'])).toBe('Choose among the values offered.')
    expect(cleanAnswers([several], { where: [' floor ', 'floor', '', 'wall'] })).toEqual({ where: ['floor', 'wall'] })
  })

  test.each([
    [plain('text'), ['a', 'b'], 'Give one answer.'],
    [plain('text'), 'x'.repeat(500), null],
    [plain('text'), 'x'.repeat(501), 'Write at most 500 characters.'],
    [plain('yes_no'), 'maybe', 'Answer yes or no.'],
    [plain('date'), '2026-02-30', 'Write a day like 2026-11-23.'],
    [plain('choice', { options: ['a'] }), 'b', 'Choose one of the values offered.'],
    [plain('number'), 'many', 'Write a number.'],
    [plain('number'), ['1'], 'Write a number.'],
    [plain('number', { least: 2, unit: 'm' }), '1', 'Write a number of at least 2 m.'],
    [plain('number', { least: 2 }), '2', null],
    [plain('meter', { most: 9 }), 10, 'Write a number of at most 9.'],
    [plain('meter', { most: 9 }), 9, null],
    [plain('text', { required: true }), '  ', 'This is needed.'],
  ])('%j answered with %j: %s', (question, answer, sentence) => expect(wrongOf(question, answer)).toBe(sentence))

  test('are read as people write them', () => {
    expect(answerText(several, ['floor', 'wall'])).toBe('floor, wall')
    expect([answerText(plain('yes_no'), 'yes'), answerText(plain('yes_no'), 'no')]).toEqual(['Yes', 'No'])
    expect([answerText(plain('number', { unit: '°C' }), -61), answerText(plain('text'), 'yes')]).toEqual(['-61 °C', 'yes'])
  })
})

describe('attributes of the standard', () => {
  const asked: Question[] = [
    plain('text', { code: 'other', label: 'Other' }),
    plain('yes_no', { code: 'runs', label: 'Runs?', required: true }),
    { ...several, when: { code: 'runs', is: 'no' } },
    plain('number', { code: 'km', least: 1, most: 9, unit: 'km' }),
  ]
  test('carry their values, limits and conditions', () => {
    const [other, runs, where, km] = attributesOf(asked)
    expect(other).toMatchObject({ variable: true, order: 1, datatype: 'text', datatype_description: null })
    expect(other).not.toHaveProperty('values')
    expect(runs).toMatchObject({
      required: true,
      values: [
        { key: 'yes', name: 'yes' },
        { key: 'no', name: 'no' },
      ],
    })
    expect(where).toMatchObject({
      required: false,
      datatype: 'multivaluelist',
      values: [{ key: 'floor' }, { key: 'wall' }],
      datatype_description: 'when “Runs?” is no',
    })
    expect(km!.datatype_description).toBe('in km, at least 1, at most 9')
    expect(attributesOf([{ ...several, options: undefined }])[0]!.values).toEqual([])
  })
  test('come back as answers: several as a list, several words of one as one, a day only where one is asked', () => {
    expect(answersFromAttributes(asked, { where: [' floor', 'wall '], other: ['2026-11-23', 'early'], km: ' ' }, 'Europe/Dublin')).toEqual({
      where: ['floor', 'wall'],
      other: '2026-11-23, early',
    })
    expect(answersFromAttributes([plain('text')], { q: '2026-11-23T01:00:00Z' }, 'Europe/Dublin')).toEqual({ q: '2026-11-23T01:00:00Z' })
  })
  const now = new Date('2026-11-23T10:30:00Z')
  const refused = (start?: string, end?: string) => {
    try {
      return spanOf(start, end, now)
    } catch (error) {
      return (error as { reasons: { code: string; field: string }[] }).reasons.map(({ code, field }) => [code, field])[0]
    }
  }
  test('a search is read in UTC, from 1970 to the year 3000, and never backwards', () => {
    expect(refused('2026-11-01T00:00:00', '2026-11-02T00:00:00')).toEqual({ from: new Date('2026-11-01T00:00:00Z'), to: new Date('2026-11-02T00:00:00Z') })
    expect(refused('1969-12-31T00:00:00Z')).toEqual(['date', 'start_date'])
    expect(refused('1970-01-01T00:00:00Z')).toMatchObject({ from: new Date('1970-01-01T00:00:00Z') })
    expect(refused(undefined, '3000-01-01T00:00:00Z')).toEqual(['date', 'end_date'])
    expect(refused('2026-11-02T00:00:00Z', '2026-11-01T00:00:00Z')).toEqual(['dates', 'end_date'])
    expect(refused('2026-11-02T00:00:00Z', '2026-11-02T00:00:00Z')).toMatchObject({ from: new Date('2026-11-02T00:00:00Z') })
  })
})

describe('progress', () => {
  const now = new Date('2026-11-23T10:00:00Z')
  const said = (more: Partial<ProgressFacts>) =>
    progressOf({ state: 'accepted', declineReason: null, question: null, orders: [], zone: 'Europe/Dublin', now, ...more }).sentence
  const order = (state: string, plannedStart: string | null = null, holdReason: string | null = null) => ({
    state,
    finished: state === 'done',
    plannedStart: plannedStart ? new Date(plannedStart) : null,
    holdReason,
  })
  test.each([
    [{ state: 'declined' }, 'We will not take this on.'],
    [{ state: 'declined', declineReason: 'It is the tenant’s.' }, 'It is the tenant’s.'],
    [{ state: 'asked' }, 'We have a question for you.'],
    [{ state: 'asked', question: 'Which lamp?' }, 'Which lamp?'],
    [{ state: 'new' }, 'We have received it.'],
    [{ orders: [order('cancelled')] }, 'The work was called off. Call the desk if it is still needed.'],
    [{ orders: [order('done'), order('cancelled')] }, 'It is done.'],
    [{ orders: [{ ...order('done'), did: 'We repaired it.' }, { ...order('done'), did: 'We repaired it.' }, order('done')] }, 'It is done. We repaired it.'],
    [{ orders: [order('ready'), order('on_job')] }, 'Somebody is working on it now.'],
    [{ orders: [{ ...order('on_job'), onTheWay: true }] }, 'Somebody is on the way.'],
    [{ orders: [{ ...order('on_job'), onTheWay: true }, order('on_job')] }, 'Somebody is working on it now.'],
    [{ orders: [order('on_hold')] }, 'It is waiting. We have not forgotten it.'],
    [{ orders: [order('on_hold', null, 'vendor')] }, 'It is waiting. We have not forgotten it.'],
    [{ orders: [order('on_hold', null, 'part')] }, 'We are waiting for a part.'],
    [{ orders: [order('dispatched')] }, 'Scheduled. We are fixing the day.'],
    [
      { orders: [order('dispatched', '2026-11-27T09:00:00Z'), order('dispatched', '2026-11-24T18:00:00Z'), order('dispatched')] },
      'Scheduled for tomorrow evening.',
    ],
    [{ orders: [order('ready')] }, 'We are looking at it.'],
  ] as [Partial<ProgressFacts>, string][])('%j: %s', (facts, sentence) => expect(said(facts)).toBe(sentence))

  test('others who follow hear nothing of what the desk and the reporter say to each other', () => {
    const others = (state: ProgressFacts['state']) => progressForOthers({ state, orders: [], zone: 'Europe/Dublin', now }).sentence
    expect(others('declined')).toBe('It was closed. Call the desk if it is still needed.')
    expect(others('asked')).toBe('The desk has asked the reporter something.')
  })

  test.each([
    ['2026-11-23T11:59:00Z', 'this morning'],
    ['2026-11-23T12:00:00Z', 'this afternoon'],
    ['2026-11-23T16:59:00Z', 'this afternoon'],
    ['2026-11-23T17:00:00Z', 'this evening'],
    ['2026-11-24T09:00:00Z', 'tomorrow morning'],
    ['2026-11-25T09:00:00Z', 'Wednesday morning'],
    ['2026-11-29T09:00:00Z', 'Sunday morning'],
    ['2026-11-30T09:00:00Z', 'Monday 30 November, morning'],
    ['2026-11-22T09:00:00Z', 'Sunday 22 November, morning'],
  ])('%s is said as %s', (at, words) => expect(dayWords(new Date(at), now, 'Europe/Dublin')).toBe(words))

  test('in the zone of the site, also about midnight', () =>
    expect(dayWords(new Date('2026-11-23T23:30:00Z'), now, 'Pacific/Auckland')).toBe('tomorrow afternoon'))
})

describe('mail', () => {
  const why = (headers: Record<string, string>, sender = 'ulla@place.example') =>
    whyIgnored({ sender, headers, own: ['desk@place.example', 'other@place.example'] })
  test.each([
    [{ 'auto-submitted': ' no ' }, null],
    [{ 'auto-submitted': 'no; owner' }, null],
    [{ 'auto-submitted': 'auto-no' }, 'It was sent by a program (Auto-Submitted: auto-no).'],
    [{ precedence: ' BULK ' }, 'It is mass mail or an automatic reply (Precedence: bulk).'],
    [{ precedence: 'first-class' }, null],
    [{}, null],
  ] as [Record<string, string>, string | null][])('%j: %s', (headers, sentence) => expect(why(headers)).toBe(sentence))
  test('what a program says of itself is cut; our own addresses are known in any letters, others’ that look alike are not', () => {
    expect(why({ 'auto-submitted': 'x'.repeat(90) })).toBe(`It was sent by a program (Auto-Submitted: ${'x'.repeat(40)}).`)
    expect(why({}, 'DESK@place.example')).toBe('It came from our own address.')
    expect(why({}, 'not-postmaster@place.example')).toBeNull()
  })

  test('a line as long as may be stays whole; a longer one is cut without a blank before its end', () => {
    expect(summaryOfMail('x'.repeat(LONGEST_SUMMARY), '')).toBe('x'.repeat(LONGEST_SUMMARY))
    expect(summaryOfMail(`${'x'.repeat(LONGEST_SUMMARY - 2)} yy`, '')).toBe(`${'x'.repeat(LONGEST_SUMMARY - 2)}…`)
    expect(summaryOfMail('  Re:  Tap   drips ', 'no')).toBe('Tap drips')
  })
  test('a subject that was cut goes on in the description; one that ends in dots by itself does not', () => {
    const long = `${'word '.repeat(40)}end`
    expect(fitMail(long, 'Text').description).toBe(`${long}\n\nText`)
    expect(fitMail('And so on…', 'Text')).toEqual({ summary: 'And so on…', description: 'Text', leftOut: null })
    expect(fitMail('x'.repeat(LONGEST_SUMMARY), 'Text').description).toBe('Text')
    expect(fitMail('  Tap   drips ', '').description).toBe('Tap drips')
  })
  test('a text as long as may be stays whole; of a longer one it is said what was left out', () => {
    expect(fitMail('S', 'y'.repeat(LONGEST_DESCRIPTION)).leftOut).toBeNull()
    const cut = fitMail('S', 'y'.repeat(LONGEST_DESCRIPTION + 1))
    expect(cut.description).toBe(`${'y'.repeat(LONGEST_DESCRIPTION - 1)}…`)
    expect(cut.leftOut).toBe(`Its text has ${LONGEST_DESCRIPTION + 1} signs; the description holds the first ${LONGEST_DESCRIPTION}.`)
    // A sign of two halves is never cut in the middle, and others stay.
    const halves = fitMail('S', `😀${'y'.repeat(LONGEST_DESCRIPTION - 4)}😀zzz`).description
    expect([halves.startsWith('😀'), /[\uD800-\uDBFF](?![\uDC00-\uDFFF])/.test(halves)]).toEqual([true, false])
  })

  test('quoted lines at the end are folded; a mark within the words of the writer is theirs', () => {
    expect(splitQuoted('Yes.\r\r> Which lamp?\r')).toEqual({ text: 'Yes.', quoted: '> Which lamp?' })
    expect(splitQuoted('Five > four.\n\n')).toEqual({ text: 'Five > four.', quoted: null })
    expect(splitQuoted('> Which?\nThe left.\n  > And when?')).toEqual({ text: '> Which?\nThe left.', quoted: '> And when?' })
    expect(splitQuoted('  \n> all of it\n')).toEqual({ text: '> all of it', quoted: null })
    expect(splitQuoted('Ours\nx ________________________________\nFrom: desk\nSent: Monday\nTo: me').quoted).toContain('From: desk')
    expect(splitQuoted('From: here to there\nTo: be sure')).toEqual({ text: 'From: here to there\nTo: be sure', quoted: null })
    expect(splitQuoted('Done.\nOn Monday, 23 November, the desk\nof Skerry wrote:\n> x')).toEqual({
      text: 'Done.',
      quoted: 'On Monday, 23 November, the desk\nof Skerry wrote:\n> x',
    })
    expect(splitQuoted('On Monday I looked at it\nand then I wrote: no')).toMatchObject({ quoted: null })
  })

  test('an address of a thread comes apart as it was put together; its kinds are signed apart', () => {
    expect(replySecret({ kind: 'r', id: 7 })).toBe('reply:7')
    expect(replySecret({ kind: 'f', id: 7 })).toBe('follower:7')
    const tag = { kind: 'f', id: 7, signature: 'abcdefgh12' } as const
    expect(readTag(taggedAddress('Desk@Place.example', tag))).toEqual({ mailbox: 'desk@place.example', tag })
    expect(readTag('Desk@Place.example')).toEqual({ mailbox: 'desk@place.example', tag: null })
    expect(readTag('a@b+r7.abcdefgh@place.example').tag).toBeNull()
  })

  test('what strangers can make us send ends exactly at its limit, of the address as of the request', () => {
    const { perAddress, perRequest } = STRANGER_LIMITS.confirm
    const may = (toAddress: number, aboutRequest: number) => mayMailStranger('confirm', { toAddress, aboutRequest })
    expect([may(perAddress - 1, perRequest - 1), may(perAddress, 0), may(0, perRequest)]).toEqual([true, false, false])
  })
})

describe('moves', () => {
  const facts: RequestFacts = { state: 'new', placeId: null, assetId: null, categoryId: null, priority: null, payerId: null }
  test('what is missing is said, each at its field', () => {
    expect(requestMoveReasons(facts, 'accept').map(({ sentence, field }) => [field, sentence])).toEqual([
      ['placeId', 'Choose the place or the asset.'],
      ['categoryId', 'Choose what it is about.'],
      ['consequence', 'Say who is affected and how soon it has to be done.'],
      ['payerId', 'Choose who pays.'],
    ])
    expect(requestMoveReasons({ ...facts, state: 'joined' }, 'ask')[0]!.sentence).toBe('The request is joined, so it cannot take “Ask the reporter”.')
  })
  test('what the reporter will read has to be written', () => {
    for (const written of [null, '  '])
      expect(() => moveRequest(facts, 'ask', written)).toThrow(
        expect.objectContaining({ reasons: [{ code: 'reason_missing', sentence: 'Write it in a few words.', field: 'reason' }] }) as Error,
      )
    expect(moveRequest(facts, 'ask', 'Which lamp?')).toBe('asked')
  })
  test('undecided is what is new or asked', () => expect(REQUEST_STATES.filter(isUndecided)).toEqual(['new', 'asked']))
})

describe('suggestions', () => {
  let id = 0
  const NOW = Date.parse('2026-11-23T10:30:00Z')
  const decided = (text: string, categoryId: number, more: Partial<Decided> = {}): Decided => ({
    id: ++id,
    text,
    placePath: [1, 2, 3],
    assetId: null,
    categoryId,
    tradeId: null,
    at: NOW,
    ...more,
  })
  const asked = (text: string, more: object = {}) => ({ text, placePath: [1, 2, 3], assetId: null, at: NOW, ...more })
  const known = (rows: Decided[]) => {
    const all = new Precedents()
    rows.forEach((row) => all.put(row))
    return all
  }
  const sure = (rows: Decided[], text: string) => known(rows).guess(asked(text)).category?.sure
  const same = (count: number, categoryId: number, text = 'tap drips') => Array.from({ length: count }, () => decided(text, categoryId))

  test('how sure: three of one mind are needed to be almost certain, and a divided history makes a guess', () => {
    expect(sure(same(3, 1), 'tap drips')).toBe('almost certain')
    expect(sure(same(2, 1), 'tap drips')).toBe('likely')
    expect(sure([...same(5, 1), ...same(1, 2)], 'tap drips')).toBe('likely')
    expect(sure([...same(3, 1), ...same(2, 2)], 'tap drips')).toBe('likely')
    expect(sure([...same(5, 1), ...same(4, 2)], 'tap drips')).toBe('a guess')
    expect(sure([...same(1, 1), ...same(1, 2), ...same(1, 3)], 'tap drips')).toBeUndefined()
  })
  test('much in another word than ours makes it less sure', () => {
    const rows = [...same(4, 1, 'tap drips'), decided('gyroscope', 9), decided('wobbles', 9)]
    expect(sure(rows, 'tap drips gyroscope wobbles')).not.toBe('almost certain')
  })
  test('the share is of the likeness, and the larger half wins whichever came first', () => {
    const guess = known([...same(1, 2), ...same(3, 1)]).guess(asked('tap drips')).category!
    expect([guess.id, Math.round(guess.share * 100)]).toEqual([1, 75])
  })
  test('the words that speak are of those that say so alone, as they were written, also in what was written besides', () => {
    const guess = known([...same(3, 1, 'tap drips'), decided('lamp', 2)]).guess({ ...asked('Tap lamp'), more: 'It DRIPS.' }).category!
    expect(guess.id).toBe(1)
    expect(guess.words.sort()).toEqual(['drips', 'tap'])
  })
  test('the same asset counts, none on both sides does not; at most as many as asked come back, the newer of equals first', () => {
    const rows = [decided('tap drips', 1, { assetId: 5 }), decided('tap drips', 1), decided('tap drips', 1, { assetId: 6 })]
    const all = known(rows)
    expect(all.alike(asked('tap drips', { assetId: 5 }), 9)[0]!.id).toBe(rows[0]!.id)
    expect(all.alike(asked('tap drips'), 2).map((one) => one.id)).toEqual([rows[2]!.id, rows[1]!.id])
    expect(new Set(all.alike(asked('tap drips'), 9).map((one) => one.score)).size).toBe(1)
  })
  test('what is taken out or put again counts once; nothing is found for nothing', () => {
    const [row] = same(1, 1)
    const all = known([row!])
    all.put({ ...row!, text: 'lamp flickers' })
    expect([all.size, all.alike(asked('tap drips'), 9).length, all.alike(asked('lamp flickers'), 9).length]).toEqual([1, 0, 1])
    all.drop(row!.id)
    all.drop(999)
    expect([all.size, all.alike(asked('lamp flickers'), 9)]).toEqual([0, []])
    expect(all.alike(asked(''), 9)).toEqual([])
  })
  test('no place is no near place', () => {
    const rows = [decided('tap drips', 1, { placePath: [], assetId: 7 }), decided('tap drips', 1, { placePath: [], assetId: 7 })]
    expect(known(rows).guess(asked('tap drips', { placePath: [] })).asset).toBeNull()
  })
})
