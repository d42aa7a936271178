import { expect, test } from 'vitest'
import { amount, signed } from '@/format/amounts'

test('amounts are grouped whatever their length, and never go through floats', () => {
  expect(amount('123456789012345678901234567890.10')).toBe('123,456,789,012,345,678,901,234,567,890.10')
  expect(amount('-412.66')).toBe('−412.66')
  expect(amount('999')).toBe('999')
  expect(amount('2026-03-31')).toBe('2026-03-31')
  expect(amount(null)).toBe('–')
  expect(signed('154.20')).toBe('+154.20')
  expect(signed('-1000')).toBe('−1,000')
  expect(signed('0.00')).toBe('0.00')
})
