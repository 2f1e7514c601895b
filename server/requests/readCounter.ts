import * as contract from '#contract/requests'
import { counterFieldsOf } from '#core/requests'
import { query } from '#server/kit'
import { offeredCategories } from './categoryForms'
import { contactOf, siteByCode } from './siteByCode'

export default query(contract.readCounter, async ({ db, input }) => {
  const site = await siteByCode(db, input.site)
  const fields = counterFieldsOf(site.counterFields)
  return { ...contactOf(site), fields, categories: fields.category === 'not_asked' ? [] : await offeredCategories(db) }
})
