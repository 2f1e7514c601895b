import { OWN_KINDS, ownName } from '#core/own'
import type { OwnField, OwnKind } from '#core/own'
import type { ListKind } from './fields'
import type { ListField } from './shapes'

/** What a list asks an own field as. */
const SHAPES = { text: 'text', link: 'text', number: 'number', date: 'date', choice: 'choice', flag: 'flag', person: 'named' } as const

export const isOwnKind = (kind: ListKind): kind is OwnKind => (OWN_KINDS as readonly string[]).includes(kind)

/** An own field as a field of a list: asked for, put in order, shown and brought together like any other. */
export function ownListField({ id, label, shape, unit, choices }: OwnField): ListField {
  return {
    name: ownName(id),
    label,
    shape: SHAPES[shape],
    own: id,
    shows: true,
    ...(shape === 'flag' ? {} : { empties: true }),
    ...(shape === 'choice' ? { choices: Object.fromEntries(choices.map((choice) => [choice.key, choice.name])), groups: true } : {}),
    ...(shape === 'person' ? { register: 'person' as const, groups: true } : {}),
    ...(shape === 'number' || shape === 'date' || shape === 'text' ? { sorts: true } : {}),
    ...(unit ? { unit } : {}),
  }
}
