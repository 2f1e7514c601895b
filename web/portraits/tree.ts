import type { TreeNode } from '#contract/portraits'
import type { RecordRef } from '#web/kit'

export const recordOf = ({ type, id }: Pick<TreeNode, 'type' | 'id'>): RecordRef => ({ register: type === 'place' ? 'places' : 'assets', id })
