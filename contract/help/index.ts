import Joi from 'joi'
import { endpoint, field } from '#contract/kit'
import type { Instant } from '#contract/kit'
import { BULLETIN_KINDS } from '#core/help'
import type { BulletinKind } from '#core/help'

export interface BulletinRow {
  id: number
  version: number
  siteId: number
  kind: BulletinKind
  title: string
  body: string
  startsAt: Instant
  endsAt: Instant
  places: { id: number; code: string; name: string }[]
  withdrawn: boolean
}

export interface ArticleRow {
  id: number
  version: number
  siteId: number
  categoryId: number | null
  title: string
  body: string
  changedAt: Instant
  withdrawn: boolean
  documents: { id: number; name: string; bytes: number }[]
}

export interface HelpSheet {
  bulletins: BulletinRow[]
  articles: ArticleRow[]
}

export const readHelp = endpoint<object, HelpSheet>({
  method: 'GET',
  path: '/api/help',
  says: 'Notices and help articles as the desk edits them.',
  may: 'desk.read',
})

const richText = () => Joi.string().max(60_000).allow('')

export interface BulletinEntry {
  id?: number | null
  version?: number
  siteId: number
  kind: BulletinKind
  title: string
  body: string
  startsAt: Instant
  endsAt: Instant
  placeIds: number[]
  withdrawn?: boolean
}

export const saveBulletin = endpoint<BulletinEntry, HelpSheet>({
  method: 'POST',
  path: '/api/help/bulletins',
  says: 'Write or change a notice: what is closed, worked on or held, where, from when to when.',
  may: 'help.edit',
  input: Joi.object<BulletinEntry, true>({
    id: field.id().allow(null),
    version: field.version(),
    siteId: field.id().required(),
    kind: field.oneOf(BULLETIN_KINDS).required(),
    title: field.line().required(),
    body: richText().required(),
    startsAt: field.instant().required(),
    endsAt: field.instant().required(),
    placeIds: Joi.array().items(field.id()).unique().min(1).max(50).required().messages({ 'array.min': 'Choose one place or more.' }),
    withdrawn: Joi.boolean(),
  }),
})

export interface ArticleEntry {
  id?: number | null
  version?: number
  siteId: number
  categoryId: number | null
  title: string
  body: string
  withdrawn?: boolean
}

export const saveArticle = endpoint<ArticleEntry, HelpSheet>({
  method: 'POST',
  path: '/api/help/articles',
  says: 'Write or change a help article.',
  may: 'help.edit',
  input: Joi.object<ArticleEntry, true>({
    id: field.id().allow(null),
    version: field.version(),
    siteId: field.id().required(),
    categoryId: field.id().allow(null).required(),
    title: field.line().required(),
    body: richText().required(),
    withdrawn: Joi.boolean(),
  }),
})

export const addArticleFile = endpoint<{ id: number; name?: string }, { id: number; kind: 'picture' | 'document'; name: string; address: string }>({
  method: 'POST',
  path: '/api/help/articles/:id/files',
  says: 'Add a picture or document to a help article.',
  may: 'help.edit',
  upload: true,
  input: Joi.object<{ id: number; name?: string }, true>({ id: field.id().required(), name: Joi.string().trim().max(160) }),
})

export const readHelpFile = endpoint<{ id: number }, Blob>({
  method: 'GET',
  path: '/api/help/files/:id',
  says: 'A picture or document of a help article that is not withdrawn.',
  may: 'public',
  answers: 'file',
  input: Joi.object<{ id: number }, true>({ id: field.id().required() }),
})
