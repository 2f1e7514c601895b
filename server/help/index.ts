import type { Route } from '#server/kit'
import addArticleFile from './addArticleFile'
import readHelp from './readHelp'
import readHelpFile from './readHelpFile'
import saveArticle from './saveArticle'
import saveBulletin from './saveBulletin'

export * from './known'
export const routes: Route[] = [readHelp, saveBulletin, saveArticle, addArticleFile, readHelpFile]
