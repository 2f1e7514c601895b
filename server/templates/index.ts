import type { Route } from '#server/kit'
import { makeOrders, previewOrders, takeBackBatch } from './makeOrders'
import { addTemplate, editTemplate, listTemplates } from './templates'

export const routes: Route[] = [listTemplates, addTemplate, editTemplate, previewOrders, makeOrders, takeBackBatch]
