/** What somebody can do by training, with the last day for which its paper is good; null where it has no end. */
export interface HeldSkill {
  name: string
  /** "2026-11-23" */
  until: string | null
}

/**
 * Of what a job asks for, what somebody cannot do on a day: nobody noted it of them, or its certificate has ended. A
 * certificate is good through its last day. Names are the same whatever their capitals.
 * @param day at the site, "2026-11-23"
 */
export function skillsLacking(held: readonly HeldSkill[], asked: readonly string[], day: string): { name: string; ended: string | null }[] {
  return asked.flatMap((name): { name: string; ended: string | null }[] => {
    const mine = held.find((one) => isSameSkill(one.name, name))
    if (!mine) return [{ name, ended: null }]
    return mine.until !== null && mine.until < day ? [{ name, ended: mine.until }] : []
  })
}

export const isSameSkill = (one: string, other: string): boolean => one.trim().toLowerCase() === other.trim().toLowerCase()

/** Each once, by its first spelling, in alphabetical order. */
export const skillsOnce = (names: readonly string[]): string[] =>
  names
    .map((name) => name.trim())
    .filter((name, n, all) => name && all.findIndex((other) => isSameSkill(other, name)) === n)
    .sort((a, b) => a.localeCompare(b))
