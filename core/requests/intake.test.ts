import fc from 'fast-check'
import {
  answerReasons,
  askedQuestions,
  cleanAnswers,
  COUNTER_FIELDS,
  counterFieldsOf,
  counterReasons,
  fieldChanges,
  fillWording,
  formReasons,
  likeness,
  OCCASIONS,
  rankTwins,
  readTag,
  splitQuoted,
  summaryOfMail,
  taggedAddress,
  USUAL_COUNTER_FIELDS,
  USUAL_WORDINGS,
  whyIgnored,
  wordingReasons,
} from './index'
import type { Answers, CounterFields, MailFacts, Question } from './index'

const question = (code: string, more: Partial<Question> = {}): Question => ({ code, label: `${code}?`, kind: 'text', required: false, ...more })

describe('the questions of a category', () => {
  const freezer: Question[] = [
    question('alarm', { kind: 'yes_no', required: true }),
    question('shown', { kind: 'number', required: true, unit: '°C', least: -100, most: 30, when: { code: 'alarm', is: 'yes' } }),
    question('moved', { kind: 'choice', options: ['All of it', 'Some', 'Nothing'], when: { code: 'alarm', is: 'yes' } }),
    question('where_to', { required: true, when: { code: 'moved', is: 'All of it' } }),
    question('seen_on', { kind: 'date' }),
  ]
  const asked = (answers: Answers) => askedQuestions(freezer, answers).map((one) => one.code)

  test('one is asked only when an earlier answer makes it relevant, and one that hangs on it only then', () => {
    expect(asked({})).toEqual(['alarm', 'seen_on'])
    expect(asked({ alarm: 'yes' })).toEqual(['alarm', 'shown', 'moved', 'seen_on'])
    expect(asked({ alarm: 'yes', moved: 'All of it' })).toEqual(['alarm', 'shown', 'moved', 'where_to', 'seen_on'])
    expect(asked({ alarm: 'no', moved: 'All of it' })).toEqual(['alarm', 'seen_on'])
  })

  test('what is missing or wrong is said at each question, and what was not asked is not missed', () => {
    const wrong = (answers: Answers) => Object.fromEntries(answerReasons(freezer, answers).map((reason) => [reason.field, reason.sentence]))
    expect(wrong({})).toEqual({ 'answers.alarm': 'This is needed.' })
    expect(wrong({ alarm: 'no' })).toEqual({})
    expect(wrong({ alarm: 'yes', shown: 40, moved: 'Half' })).toEqual({
      'answers.shown': 'Write a number of at most 30 °C.',
      'answers.moved': 'Choose one of the values offered.',
    })
    expect(wrong({ alarm: 'perhaps', seen_on: '2026-02-30' })).toEqual({
      'answers.alarm': 'Answer yes or no.',
      'answers.seen_on': 'Write a day like 2026-11-23.',
    })
    expect(wrong({ alarm: 'yes', shown: 'cold' })['answers.shown']).toBe('Write a number.')
    expect(wrong({ alarm: 'yes', shown: -101 })['answers.shown']).toBe('Write a number of at least -100 °C.')
  })

  test('only what was asked and answered is kept, numbers as numbers', () => {
    expect(cleanAnswers(freezer, { alarm: 'yes', shown: '-61', moved: '', where_to: 'left over', seen_on: ' 2026-11-23 ', stray: 'x' })).toEqual({
      alarm: 'yes',
      shown: -61,
      seen_on: '2026-11-23',
    })
  })

  test('whatever is kept is valid, and keeping it again changes nothing (property)', () => {
    const answers = fc.dictionary(
      fc.constantFrom(...freezer.map((one) => one.code)),
      fc.oneof(fc.constantFrom('yes', 'no', 'All of it', 'Some', '', '-20', '2026-11-23'), fc.integer({ min: -200, max: 200 })),
    )
    fc.assert(
      fc.property(answers, (given) => {
        const kept = cleanAnswers(freezer, given)
        expect(Object.keys(kept).every((code) => asked(given).includes(code))).toBe(true)
        if (!answerReasons(freezer, given).length) {
          expect(answerReasons(freezer, kept)).toEqual([])
          expect(cleanAnswers(freezer, kept)).toEqual(kept)
        }
      }),
    )
  })

  test.each([
    ['a question without words', [question('a', { label: ' ' })], 'Write the question.'],
    ['a short name twice', [question('a'), question('a')], '“a” is the short name of an earlier question.'],
    ['a short name with blanks', [question('a b')], 'Give it a short name'],
    ['a list of one', [question('a', { kind: 'choice', options: ['x', ' x'] })], 'A list needs two different values or more.'],
    ['limits the wrong way', [question('a', { kind: 'number', least: 5, most: 1 })], 'The least is more than the most.'],
    [
      'one that hangs on a later one',
      [question('a', { when: { code: 'b', is: 'yes' } }), question('b', { kind: 'yes_no' })],
      'It can only hang on an earlier question.',
    ],
    ['one that hangs on words', [question('a'), question('b', { when: { code: 'a', is: 'x' } })], 'It can only hang on a yes-or-no question or a list.'],
    [
      'one that waits for an answer nobody can give',
      [question('a', { kind: 'yes_no' }), question('b', { when: { code: 'a', is: 'maybe' } })],
      '“maybe” is not an answer to “a?”.',
    ],
  ])('a form with %s is not taken', (_name, questions, sentence) => {
    expect(formReasons(questions)[0]!.sentence).toContain(sentence)
  })

  test('a sound form has nothing against it', () => {
    expect(formReasons(freezer)).toEqual([])
  })
})

describe('what the Counter asks', () => {
  const has = (...given: string[]) =>
    Object.fromEntries(COUNTER_FIELDS.map((field) => [field, given.includes(field)])) as Record<(typeof COUNTER_FIELDS)[number], boolean>
  const strict: CounterFields = { ...USUAL_COUNTER_FIELDS, name: 'required', photo: 'required', wish: 'not_asked' }

  test('only what is required is missed', () => {
    expect(counterReasons(USUAL_COUNTER_FIELDS, has())).toEqual([])
    expect(counterReasons(strict, has('photo')).map((reason) => reason.field)).toEqual(['name'])
    expect(counterReasons(strict, has()).map((reason) => reason.field)).toEqual(['fileClaims', 'name'])
  })

  test('copying says what it would change, and nothing of what is the same', () => {
    expect(fieldChanges(USUAL_COUNTER_FIELDS, strict)).toEqual([
      { field: 'photo', from: 'optional', to: 'required' },
      { field: 'name', from: 'optional', to: 'required' },
      { field: 'wish', from: 'optional', to: 'not_asked' },
    ])
    expect(fieldChanges(strict, strict)).toEqual([])
    expect(counterFieldsOf(null)).toEqual(USUAL_COUNTER_FIELDS)
    expect(counterFieldsOf({ wish: 'required' }).wish).toBe('required')
  })
})

describe('mail that a program wrote', () => {
  const facts = (more: Partial<MailFacts> = {}): MailFacts => ({ sender: 'a@x.example', headers: {}, own: ['desk@s.example'], ...more })

  test.each([
    ['a bounce, by its null return path (RFC 5321, 4.5.5)', facts({ sender: '' })],
    ['an answering machine (RFC 3834, 5.1)', facts({ headers: { 'auto-submitted': 'auto-replied' } })],
    ['a robot (RFC 3834, 5.2)', facts({ headers: { 'auto-submitted': 'auto-generated; owner-email="x"' } })],
    ['mass mail', facts({ headers: { precedence: 'Bulk' } })],
    ['junk', facts({ headers: { precedence: 'junk' } })],
    ['a list (RFC 2919)', facts({ headers: { 'list-id': '<x.example>' } })],
    ['a mail server', facts({ sender: 'MAILER-DAEMON@x.example' })],
    ['a delivery report (RFC 6522)', facts({ headers: { 'content-type': 'multipart/report; report-type=delivery-status' } })],
    ['ourselves', facts({ sender: 'Desk@S.example' })],
  ])('is left alone: %s', (_name, mail) => {
    expect(whyIgnored(mail)).toMatch(/^It /)
  })

  test('a person is heard, also one whose program says that no program wrote it', () => {
    expect(whyIgnored(facts())).toBeNull()
    expect(whyIgnored(facts({ headers: { 'auto-submitted': 'no' } }))).toBeNull()
    expect(whyIgnored(facts({ headers: { precedence: 'first-class' } }))).toBeNull()
  })
})

describe('the summary of a mail', () => {
  test.each([
    ['Tap drips', 'x', 'Tap drips'],
    ['Re: AW: Fwd:  Tap   drips', 'x', 'Tap drips'],
    ['RE[2]: Tap', 'x', 'Tap'],
    ['Regarding the tap', 'x', 'Regarding the tap'],
    [undefined, '\n\n The tap drips.\nSince Monday.', 'The tap drips.'],
    [' !? ', 'The tap drips.', 'The tap drips.'],
    ['', '', 'Mail without a subject'],
  ])('%s', (subject, text, summary) => {
    expect(summaryOfMail(subject, text)).toBe(summary)
  })

  test('is never longer than a line (property)', () => {
    fc.assert(
      fc.property(
        fc.string({ maxLength: 400 }),
        fc.string({ maxLength: 400 }),
        (subject, text) => summaryOfMail(subject, text).length <= 140 && summaryOfMail(subject, text).length > 0,
      ),
    )
  })
})

describe('a reply and what it repeats', () => {
  test.each([
    ['quoted lines under it', 'It is the left one.\n\n> Which of the three?\n> Maren', 'It is the left one.', '> Which of the three?\n> Maren'],
    [
      'an introduction',
      'The left one.\n\nOn Mon, 23 Nov 2026 at 10:30, Help desk <d@s.example> wrote:\n> Which?',
      'The left one.',
      'On Mon, 23 Nov 2026 at 10:30, Help desk <d@s.example> wrote:\n> Which?',
    ],
    [
      'one over two lines',
      'Left.\nOn Monday, 23 November 2026, Help desk\n<d@s.example> wrote:\n> Which?',
      'Left.',
      'On Monday, 23 November 2026, Help desk\n<d@s.example> wrote:\n> Which?',
    ],
    [
      'another program’s mark',
      'Links.\n-----Original Message-----\nFrom: d@s.example\nWhich?',
      'Links.',
      '-----Original Message-----\nFrom: d@s.example\nWhich?',
    ],
    [
      'another language',
      'Das linke.\nAm 23.11.2026 um 10:30 schrieb Help desk:\n> Which?',
      'Das linke.',
      'Am 23.11.2026 um 10:30 schrieb Help desk:\n> Which?',
    ],
    ['line ends of another system', 'Left.\r\n\r\n> Which?\r\n', 'Left.', '> Which?'],
  ])('are told apart: %s', (_name, mail, text, quoted) => {
    expect(splitQuoted(mail)).toEqual({ text, quoted })
  })

  test('nothing is folded away of a mail that quotes nothing, or that is written between the lines', () => {
    expect(splitQuoted('One.\n\nTwo > three.')).toEqual({ text: 'One.\n\nTwo > three.', quoted: null })
    expect(splitQuoted('> Which?\nThe left one.')).toEqual({ text: '> Which?\nThe left one.', quoted: null })
    expect(splitQuoted('> all of it quoted')).toEqual({ text: '> all of it quoted', quoted: null })
  })

  test('no word is lost between the two (property)', () => {
    const line = fc.oneof(
      fc.constantFrom('> quoted', 'On Monday we saw it, and Maren wrote:', '', '-----Original Message-----', 'It drips.'),
      fc.string({ maxLength: 30 }),
    )
    const words = (text: string) => text.split(/\s+/).filter(Boolean)
    fc.assert(
      fc.property(fc.array(line, { maxLength: 12 }), (lines) => {
        const mail = lines.join('\n')
        const { text, quoted } = splitQuoted(mail)
        expect([...words(text), ...words(quoted ?? '')]).toEqual(words(mail))
      }),
    )
  })
})

test('the address of a conversation comes apart as it was put together, and others have no tag', () => {
  const address = taggedAddress('desk-ske@skerry.example', { kind: 'r', id: 24_018, signature: 'A1b2C3d4E5f6' })
  expect(address).toBe('desk-ske+r24018.A1b2C3d4E5f6@skerry.example')
  expect(readTag(address)).toEqual({ mailbox: 'desk-ske@skerry.example', tag: { kind: 'r', id: 24_018, signature: 'A1b2C3d4E5f6' } })
  for (const other of ['Desk-SKE@skerry.example', 'desk-ske+news@skerry.example', 'desk-ske+r1.x@skerry.example']) expect(readTag(other).tag).toBeNull()
})

describe('the words of mails', () => {
  test('the usual ones are sound for every occasion', () => {
    for (const occasion of OCCASIONS) expect([occasion, wordingReasons(USUAL_WORDINGS[occasion])]).toEqual([occasion, []])
  })

  test('unknown placeholders are refused with those that are known, and the link cannot be left out', () => {
    const reasons = wordingReasons({ subject: '{number} {sumary}', text: 'Hello {name}' })
    expect(reasons.map((reason) => [reason.field, reason.code])).toEqual([
      ['subject', 'placeholder'],
      ['text', 'link_missing'],
    ])
    expect(reasons[0]!.sentence).toContain('{sumary} is not known. Known are {name}, {number}')
  })

  test('an empty placeholder takes the blank before it along; what it stands for is never read again', () => {
    const values = { name: '', number: 'R-1', summary: '{link} tap', place: '', words: '', link: 'L', site: 'S', phone: 'P' }
    expect(fillWording('Hello {name},\n{summary} ({number}) {unknown}', values)).toBe('Hello,\n{link} tap (R-1) {unknown}')
  })
})

describe('likeness of short texts', () => {
  test('sees the same thing in other words, and not in other things', () => {
    expect(likeness('Tap drips', 'The tap is dripping')).toBe(1)
    expect(likeness('Tap drips', 'Ceiling light flickers')).toBe(0)
    expect(likeness('', 'Tap')).toBe(0)
    expect(rankTwins('tap dripping in the kitchen', [{ text: 'Light out' }, { text: 'Tap drips' }]).map((row) => row.text)).toEqual(['Tap drips', 'Light out'])
    expect(rankTwins('', [{ text: 'b' }, { text: 'a' }]).map((row) => row.text)).toEqual(['b', 'a'])
  })

  test('is between 0 and 1, the same both ways, and 1 with itself (property)', () => {
    fc.assert(
      fc.property(fc.lorem({ maxCount: 6 }), fc.lorem({ maxCount: 6 }), (a, b) => {
        const both = likeness(a, b)
        expect(both).toBe(likeness(b, a))
        expect(both >= 0 && both <= 1).toBe(true)
      }),
    )
  })
})
