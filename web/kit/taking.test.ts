import { CallProblem } from './call'
import { useTaking } from './taking'

const refusal = (sentence: string) =>
  new CallProblem({ type: 'about:blank', title: 'Refused', status: 422, detail: 'Refused.', reasons: [{ code: 'x', sentence, field: 'file' }] })
const file = new File(['x'], 'x.csv')
const settled = () => new Promise((resolve) => setTimeout(resolve, 0))

test('a file is looked at when it is chosen, and taken only when that is wished', async () => {
  const sent: boolean[] = []
  const { choose, take, report, busy } = useTaking((_, taking) => {
    sent.push(taking)
    return Promise.resolve({ taken: taking })
  })
  expect(await take()).toBe(false)
  choose([file])
  expect(busy.value).toBe(true)
  await settled()
  expect([report.value, busy.value]).toEqual([{ taken: false }, false])
  expect(await take()).toBe(true)
  expect([report.value, sent]).toEqual([{ taken: true }, [false, true]])
})

test('what is refused says why; what was looked at before stays when only the taking was refused', async () => {
  let refuse = false
  const { choose, take, look, report, wrong } = useTaking((_, taking) =>
    refuse ? Promise.reject(refusal(taking ? 'Not taken.' : 'Not read.')) : Promise.resolve({ taken: taking }),
  )
  choose([file])
  await settled()
  refuse = true
  expect(await take()).toBe(false)
  expect([wrong.value, report.value]).toEqual(['Not taken.', { taken: false }])
  expect(await look()).toBe(false)
  expect([wrong.value, report.value]).toEqual(['Not read.', null])
  refuse = false
  await look()
  expect(wrong.value).toBe('')
})
