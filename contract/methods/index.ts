import { addOne, editOne, readOne, restoreOne, retireOne } from '#contract/registers'
import type { RecordSheet } from '#contract/registers'
import { METHOD_FIELDS } from '#core/methods'
import type { MethodFields } from '#core/methods'

export * from './content'
export * from './plan'
export * from './steps'

export type MethodSheet = RecordSheet<MethodFields>
export const readMethod = readOne<MethodFields>('methods')
export const addMethod = addOne<MethodFields, 'code' | 'name'>('methods', 'registers.edit', METHOD_FIELDS)
export const editMethod = editOne<MethodFields>('methods', 'registers.edit', METHOD_FIELDS)
export const retireMethod = retireOne<MethodFields>('methods', 'registers.edit')
export const restoreMethod = restoreOne<MethodFields>('methods', 'registers.edit')
