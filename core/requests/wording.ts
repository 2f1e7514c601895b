import type { Reason } from '#core/kit'

/** When a reporter is written to, and with what unless their site has words of its own. */
export const OCCASIONS = ['received', 'question', 'declined', 'scheduled', 'message', 'done', 'called_off', 'following'] as const
export type Occasion = (typeof OCCASIONS)[number]

export const OCCASION_NAMES: Record<Occasion, string> = {
  received: 'It was received',
  question: 'The desk asks a question',
  declined: 'It is declined',
  scheduled: 'Somebody is coming',
  message: 'The desk sends a message',
  done: 'It is done',
  called_off: 'It is called off',
  following: 'Somebody says “me too”',
}

/** What may stand in braces, and what it stands for. */
export const PLACEHOLDERS = {
  name: 'The reporter’s name, or nothing',
  number: 'The reference',
  summary: 'What they wrote in one line',
  place: 'Where it is',
  words: 'The question, the reason, the message or the time, as the occasion has it',
  link: 'Their private link',
  site: 'The site’s name',
  phone: 'The desk’s phone number',
} as const
export type Placeholder = keyof typeof PLACEHOLDERS

export interface Wording {
  subject: string
  text: string
}

const around = (middle: string) =>
  `Hello {name},\n\nabout “{summary}” ({number}):\n\n${middle}\n\nWhere it stands:\n{link}\n\nYou can answer this mail.\n\n{site}, {phone}`

export const USUAL_WORDINGS: Record<Occasion, Wording> = {
  received: { subject: '{number} {summary}', text: around('Thank you. We have received it and will look at it.') },
  question: { subject: '{number} {summary}', text: around('We have a question before we can go on:\n\n{words}') },
  declined: { subject: '{number} {summary}', text: around('We will not take this on. The reason:\n\n{words}') },
  scheduled: { subject: '{number} {summary}', text: around('It is planned for {words}.') },
  message: { subject: '{number} {summary}', text: around('{words}') },
  done: { subject: '{number} {summary}', text: around('It is done. {words}\nIf it is not, open your page and say so there.') },
  called_off: { subject: '{number} {summary}', text: around('The work was called off. Call the desk if it is still needed.') },
  following: { subject: '{number} {summary}', text: around('Thank you for telling us. It was reported already; you hear how it goes.') },
}

const IN_BRACES = /\{([^{}\n]*)\}/g

/**
 * What keeps a wording from being used: unknown placeholders, or the link missing. Each at its field. `own` are the
 * names of fields the site has added to requests, which may stand in braces too.
 */
export function wordingReasons(wording: Wording, own: readonly string[] = []): Reason[] {
  const reasons: Reason[] = []
  for (const field of ['subject', 'text'] as const) {
    if (!wording[field].trim()) reasons.push({ code: 'empty', sentence: 'This is needed.', field })
    for (const [, name] of wording[field].matchAll(IN_BRACES))
      if (!(name! in PLACEHOLDERS) && !own.includes(name!))
        reasons.push({
          code: 'placeholder',
          sentence: `{${name}} is not known. Known are ${[...Object.keys(PLACEHOLDERS), ...own].map((one) => `{${one}}`).join(', ')}.`,
          field,
        })
  }
  if (!wording.text.includes('{link}'))
    reasons.push({ code: 'link_missing', sentence: 'Keep {link} in the text: it is how the reporter sees where it stands.', field: 'text' })
  return reasons
}

/** The words with every placeholder filled in; an empty one takes the blank before it along, an unknown one stays as it is. */
export function fillWording(text: string, values: Readonly<Record<string, string>>): string {
  return text.replace(/( ?)\{([^{}\n]+)\}/g, (whole, blank: string, name: string) => {
    const value = Object.hasOwn(values, name) ? values[name] : undefined
    if (value === undefined) return whole
    return value ? blank + value : ''
  })
}
