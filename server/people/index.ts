import type { Route } from '#server/kit'
import findPeople from './findPeople'
import keepCallPreset from './keepCallPreset'
import listNotices from './listNotices'
import readNotices from './readNotices'
import readSelf from './readSelf'
import readVocabulary from './readVocabulary'
import signIn from './signIn'
import signOut from './signOut'

export const routes: Route[] = [signIn, signOut, readSelf, listNotices, readNotices, findPeople, readVocabulary, keepCallPreset]
