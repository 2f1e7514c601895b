import type { Route } from '#server/kit'
import listDues from './listDues'

export * from './followAsset'
export const routes: Route[] = [listDues]
