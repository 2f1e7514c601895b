interface Tool {
  text: string
  equipmentId: number | null
}
interface Booked {
  equipmentId: number
  name: string
}
export interface ToBring {
  text: string
  many: number
}

/** What has to be brought to a job: tools of the plan and equipment kept for it, each piece of equipment once, the same tool counted. */
export function toBring(tools: readonly Tool[], booked: readonly Booked[]): ToBring[] {
  const many = new Map<string, number>()
  const add = (text: string) => void many.set(text, (many.get(text) ?? 0) + 1)
  const pieces = new Map(booked.map(({ equipmentId, name }) => [equipmentId, name]))
  // What is planned and not yet kept has to come along all the same.
  for (const { text, equipmentId } of tools) if (equipmentId !== null && !pieces.has(equipmentId)) pieces.set(equipmentId, text)
  for (const name of pieces.values()) add(name)
  for (const { text, equipmentId } of tools) if (equipmentId === null) add(text)
  return [...many].map(([text, count]) => ({ text, many: count }))
}

export const countOf = (bring: readonly ToBring[]): number => bring.reduce((sum, { many }) => sum + many, 0)
