/** Where an entry fits: by the beginning of the class (UNIFORMAT II) of an asset; everywhere without one. Common practice, no source. */
type Fits = readonly (readonly [entry: string, classes?: readonly string[]])[]

const MOVING = ['B2', 'C1', 'D1', 'E']
const POWERED = ['D1', 'D3', 'D4', 'D5', 'E']
const WATER = ['D2', 'D3', 'D4']

/** Short lists to close a job with; free text goes beside them. Common practice, no source. */
const SYMPTOMS: Fits = [
  ['Not working'],
  ['Works now and then'],
  ['Leaking', ['B', ...WATER, 'E']],
  ['Noisy', ['D', 'E']],
  ['Too warm', ['D3', 'E']],
  ['Too cold', ['D3']],
  ['Blocked', ['B3', ...WATER]],
  ['Low flow', WATER],
  ['Door does not close', MOVING],
  ['Trips', POWERED],
  ['Loose or broken'],
  ['Alarm', ['D', 'E']],
  ['No power', POWERED],
  ['Smell', ['D2', 'D3', 'E']],
  ['Worn'],
]
const CAUSES: Fits = [
  ['Wear'],
  ['Corrosion'],
  ['Blockage', ['B3', ...WATER]],
  ['Electrical fault', POWERED],
  ['Loose connection', POWERED],
  ['Out of line', MOVING],
  ['Low charge', ['D3', 'E']],
  ['Wrong setting', ['D', 'E']],
  ['Damage'],
  ['Weather', ['A', 'B', 'G']],
  ['Failed part'],
  ['Misuse'],
  ['Not found'],
]
const FIXES: Fits = [
  ['Replaced'],
  ['Repaired'],
  ['Adjusted'],
  ['Cleaned'],
  ['Unblocked', ['B3', ...WATER]],
  ['Lubricated', MOVING],
  ['Topped up', ['D3', 'E']],
  ['Reset', ['D', 'E']],
  ['Tightened'],
  ['Made safe'],
  ['No fault found'],
]

export interface OutcomeLists {
  symptoms: string[]
  causes: string[]
  fixes: string[]
}

const fitting = (entries: Fits, classCode: string | null): string[] =>
  entries.flatMap(([entry, classes]) => (!classes || classCode === null || classes.some((one) => classCode.startsWith(one)) ? entry : []))

/** What can be wrong with an asset of a class, why, and what is done about it; all there is, where none is known. */
export const outcomeListsFor = (classCode: string | null): OutcomeLists => ({
  symptoms: fitting(SYMPTOMS, classCode),
  causes: fitting(CAUSES, classCode),
  fixes: fitting(FIXES, classCode),
})

/** The same for whoever reported it, who does not speak maintenance. */
const IN_PLAIN_WORDS: Record<string, string> = {
  Replaced: 'We replaced what was worn or broken.',
  Repaired: 'We repaired it.',
  Adjusted: 'We adjusted it.',
  Cleaned: 'We cleaned it.',
  Unblocked: 'We cleared what blocked it.',
  Lubricated: 'We greased it.',
  'Topped up': 'We filled it up.',
  Reset: 'We reset it.',
  Tightened: 'We tightened it.',
  'Made safe': 'We made it safe.',
  'No fault found': 'We looked and found nothing wrong.',
}

/** What was done, to be read by its reporter. What is not in our lists was written for the desk, and is not theirs. */
export const whatWasDone = (fix: string | null): string | null => (fix === null ? null : (IN_PLAIN_WORDS[fix] ?? null))
