import { foldText } from '#core/kit'

/** From so many letters on, an act is meant by how it begins. */
const BEGINS_AT = 3

/**
 * Whether what was typed is the name of an act, as "board" of "Open Board", or how it begins, as "compu" of "Compute a plan". Such
 * an act comes first and stays there: what the search finds a moment later must not slip under a finger on Enter.
 */
export function isNamed(label: string, typed: string): boolean {
  const [name, words] = [foldText(label).trim(), foldText(typed).trim()]
  if (!words) return false
  return name === words || name.endsWith(` ${words}`) || (words.length >= BEGINS_AT && name.startsWith(words))
}
