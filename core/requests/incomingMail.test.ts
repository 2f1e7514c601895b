import { fitMail, LONGEST_DESCRIPTION, splitQuoted } from '#core/requests'

const quoted = 'On Monday the desk wrote:\n> Which one?'

describe('what a reply repeats', () => {
  test.each([
    ['an address in the header line', 'From: Maren Quill <desk@place.example>\nSent: Monday\nTo: me\nSubject: Re: Tap\n\nWhich one?'],
    ['no address at all', 'From: Maren Quill\nSent: Monday, 23 November 2026 10:30\nTo: Aoife\nSubject: Re: Tap\n\nWhich one?'],
    ['German', 'Von: Maren Quill\nGesendet: Montag, 23. November 2026 10:30\nAn: Aoife\nBetreff: AW: Hahn\n\nWelcher?'],
    ['French', 'De : Maren Quill\nEnvoyé : lundi 23 novembre 2026\nÀ : Aoife\nObjet : RE: Robinet\n\nLequel ?'],
    ['in bold, as some programs write it', '*From:* Maren Quill\n*Date:* Monday\n*To:* Aoife\n\nWhich one?'],
    ['under a ruled line', '________________________________\nFrom: Maren Quill\nSent: Monday\nTo: Aoife\n\nWhich one?'],
    ['after a line of dashes', '-----Original Message-----\nWhich one?'],
    ['in the words of a mail program', quoted],
  ])('is folded with %s', (_what, block) => expect(splitQuoted(`The left one.\n\n${block}`)).toEqual({ text: 'The left one.', quoted: block }))

  test.each([
    'From: the second floor you can see it best.\nThe left one.',
    'It says on it:\nFrom: Acme\nand nothing else.',
    'The left one.\n____________________\nAoife',
    'To: whom it concerns. From: me.',
    'Von: oben kommt Wasser.\nSeit gestern.',
  ])('its writer’s own lines are not: %s', (text) => expect(splitQuoted(text)).toEqual({ text, quoted: null }))

  test('nothing is lost between the two', () => {
    for (const text of ['Yes.\n\nFrom: A\nTo: B\nDate: c\n\nd', 'a\n____________\nFrom: A\nTo: B\nDate: c'])
      expect(`${splitQuoted(text).text}${splitQuoted(text).quoted}`.replace(/\s/g, '')).toBe(text.replace(/\s/g, ''))
  })
})

describe('a mail made into a request', () => {
  test('a subject that is too long goes on in the description', () => {
    const subject = `The tap ${'drips and '.repeat(20)}stops at noon`
    const made = fitMail(subject, 'Since today.')
    expect(made.summary).toHaveLength(140)
    expect(made.description).toBe(`${subject}\n\nSince today.`)
    expect(made.leftOut).toBeNull()
  })

  test('a text that is too long says so, and is never cut within a sign', () => {
    const made = fitMail('Long', `${'x'.repeat(LONGEST_DESCRIPTION - 2)}👩 and more`)
    expect(made.description.length).toBeLessThanOrEqual(LONGEST_DESCRIPTION)
    expect(made.description).not.toMatch(/[\uD800-\uDBFF](?![\uDC00-\uDFFF])/)
    expect(made.leftOut).toContain('4009 signs')
  })

  test('with a subject alone it is the subject, with nothing it says so', () => {
    expect(fitMail('Tap drips', '').description).toBe('Tap drips')
    expect(fitMail(undefined, '').description).toBe('(no words)')
  })
})
