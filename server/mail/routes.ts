import type { Route } from '#server/kit'
import listKeptMail from './listKeptMail'
import takeKeptMail from './takeKeptMail'

export const routes: Route[] = [listKeptMail, takeKeptMail]
