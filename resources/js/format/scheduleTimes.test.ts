import { expect, it } from 'vitest'
import { expressionOf, timesOf, timesSaid } from '@/format/scheduleTimes'

it.each([
  ['0 6 * * *', 'every day at 06:00'],
  ['5 23 * * 1-5', 'Monday to Friday at 23:05'],
  ['30 6 * * 1', 'every Monday at 06:30'],
  ['0 0 15 * *', 'on day 15 of every month at 00:00'],
  ['7 * * * *', 'every hour, at minute 7'],
  ['*/10 6 * 2 1', 'at */10 6 * 2 1 (cron)'],
  ['0 6 1 * 1', 'at 0 6 1 * 1 (cron)'],
])('%s is said as %s, and comes back as it was', (expression, said) => {
  expect(timesSaid(expression)).toBe(said)
  expect(expressionOf(timesOf(expression))).toBe(expression)
})
