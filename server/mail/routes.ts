import type { Route } from '#server/kit'
import dismissMail from './dismissMail'
import listKeptMail from './listKeptMail'
import readKeptMail from './readKeptMail'
import readKeptMailFile from './readKeptMailFile'
import readRawMail from './readRawMail'
import takeKeptMail from './takeKeptMail'

export const routes: Route[] = [listKeptMail, takeKeptMail, dismissMail, readKeptMail, readKeptMailFile, readRawMail]
