const texts = new Set<string>()

/** Notes the text of a statement that the database is to keep ready: each connection asks it once to read and plan it. */
export const keepReady = (text: string): void => void texts.add(text)

export const isKeptReady = (text: string): boolean => texts.has(text)
