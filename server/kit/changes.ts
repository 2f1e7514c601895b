/** The fields sent that differ from what is there, empty text counting as nothing. */
export function changesOf<Row extends object>(
  row: Row,
  sent: object,
): { fields: Partial<Row>; differences: { field: string; theirs: unknown; yours: unknown }[] } {
  const fields: Record<string, unknown> = {}
  const differences: { field: string; theirs: unknown; yours: unknown }[] = []
  for (const [field, value] of Object.entries(sent)) {
    if (value === undefined) continue
    const yours = value === '' ? null : value
    const theirs = (row as Record<string, unknown>)[field] ?? null
    if (theirs === yours) continue
    fields[field] = yours
    differences.push({ field, theirs, yours })
  }
  return { fields: fields as Partial<Row>, differences }
}
