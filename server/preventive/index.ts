import type { Route } from '#server/kit'
import listDues from './listDues'

export const routes: Route[] = [listDues]
