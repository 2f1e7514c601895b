import fc from 'fast-check'
import { codesIn, doubledBy, filledSummary, MOST_SUMMARY, templateReasons } from '#core/templates'
import type { OpenOrder, TemplateFields } from '#core/templates'

const template: TemplateFields = {
  siteId: 1,
  name: 'Smoke detector test',
  kind: 'inspection',
  summary: 'Smoke detector test, {code}',
  description: 'Press, listen, note.',
  priority: 'routine',
  categoryId: null,
  tradeId: null,
  teamId: null,
  leadId: null,
  supervisorId: null,
  methodId: null,
  payerRule: 'place',
  payerId: null,
  estimateMinor: null,
  dueDays: null,
}

test('a template says what is done and who pays; words in braces are code or name', () => {
  const fields = (more: Partial<TemplateFields>) => templateReasons({ ...template, ...more }).map(({ field }) => field)
  expect(fields({})).toEqual([])
  expect(fields({ name: ' ', summary: '', description: '' })).toEqual(['name', 'summary', 'description'])
  expect(fields({ payerRule: 'fixed' })).toEqual(['payerId'])
  expect(fields({ payerRule: 'fixed', payerId: 3 })).toEqual([])
  expect(fields({ summary: 'Test {room} of {code}' })).toEqual(['summary'])
})

test('the summary of each holds its code and name, and never more than a summary may', () => {
  expect(filledSummary('Test, {code} {name}', { code: 'GAN-101', name: 'Studio 1' })).toBe('Test, GAN-101 Studio 1')
  fc.assert(fc.property(fc.string(), fc.string(), (code, name) => filledSummary('{name} {code} {name}', { code, name }).length <= MOST_SUMMARY))
})

test('codes come one a line, between commas, or as the first column of a table; each once', () => {
  expect(codesIn('GAN-101\n gan-102 \r\n\nGAN-101')).toEqual(['GAN-101', 'gan-102'])
  expect(codesIn('GAN-101, GAN-102; GAN-103')).toEqual(['GAN-101', 'GAN-102', 'GAN-103'])
  expect(codesIn('GAN-101\tStudio 1\nGAN-102\tStudio 2')).toEqual(['GAN-101', 'GAN-102'])
  expect(codesIn('"GAN-101"\n""')).toEqual(['GAN-101'])
})

test('doubled is what is called the same, made from the same template, or done by the same method', () => {
  const open = (more: Partial<OpenOrder>): OpenOrder => ({ id: 1, number: 'W-1', summary: 'Other', methodIds: [], templateIds: [], ...more })
  const made = { templateId: 7, methodId: 3, summary: 'Test, GAN-101' }
  expect(doubledBy(made, [open({})])).toBeNull()
  expect(doubledBy(made, [open({}), open({ id: 2, summary: 'test, gan-101' })])!.id).toBe(2)
  expect(doubledBy(made, [open({ templateIds: [7] })])!.id).toBe(1)
  expect(doubledBy(made, [open({ methodIds: [3] })])!.id).toBe(1)
  expect(doubledBy({ ...made, methodId: null }, [open({ methodIds: [3] })])).toBeNull()
})
