/** What the timeline needs to write instants and amounts the way its reader does. */
export interface EventWords {
  time: (instant: string) => string
  money: (minor: number) => string
}

/** Values a change replaced and put in their place, by field. */
export type ChangedFields = Record<string, { from: unknown; to: unknown }>

/**
 * One kind of event, as its room tells of it. `told` and `writes` have to be said for each, so that nobody
 * forgets to ask whether somebody hears of it.
 */
export interface EventRule<Facts extends object = object> {
  /** After the name of who did it, on the timeline. */
  says: string
  /** What stands behind that, made from the facts. */
  about?: (facts: Partial<Facts>, words: EventWords) => string
  /** On the page of who reported it, made with a writer of days; nothing where it is no news to them, null where reporters never hear. */
  told: ((facts: Partial<Facts>, day: (instant: string) => string) => string) | null
  /** Whether mails or notices are written of it: the rooms that write them are held to this list. */
  writes: boolean
  /** The clock tells of it by itself; nobody acted. */
  byClock?: true
  /** It may change who somebody is or what they may hear: open lines ask again. */
  changesWho?: true
  /** It is talk: only the conversation and the timeline say it, and nothing else of the request or order changes. */
  talk?: true
  /** The technician it names hears that it happened, and no more of it. */
  forTechnician?: true
  /** It takes a job from the technicians it names. */
  takesJob?: true
}

/**
 * Declares a kind of event with the facts it carries.
 *
 * @example 'field.part': event<{ part: string }>()({ says: 'used', about: ({ part }) => part ?? '', told: null, writes: false })
 */
export const event =
  <Facts extends object = object>() =>
  <const Rule extends EventRule<Facts>>(rule: Rule): Rule & { readonly facts?: Facts } =>
    rule

/** A kind that says all it has to say in its words. */
export const plain = <const Says extends string>(says: Says) => event()({ says, told: null, writes: false })
