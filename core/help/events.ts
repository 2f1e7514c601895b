import { event } from '#core/kit'

interface Written {
  title: string
  withdrawn: boolean
}

/** What is written for people to help themselves. */
export const HELP_EVENTS = {
  'help.article': event<Written>()({ says: 'wrote a help article', told: null, writes: false }),
  'help.bulletin': event<Written>()({ says: 'wrote a notice', told: null, writes: false }),
}
