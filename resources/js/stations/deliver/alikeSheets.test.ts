import { expect, it } from 'vitest'
import type { Schemas } from '@/api/client'
import { sheetsBeside, sheetsToTake, usualLabel } from '@/stations/deliver/alikeSheets'

const sheets = ['2024', '2025', 'Fees'].map((name) => ({ name, hidden: false, ...(name === '2025' ? { alike: true } : {}) }))
const waits = (id: string, sheet: string, digest = 'a'): Schemas['Receipt'] =>
  ({ id, digest, fileName: 'years.xlsx', preview: { format: { kind: 'xlsx', sheet, sheets } } }) as unknown as Schemas['Receipt']

it('offers sheets with the same columns until they wait, and labels their rows with the sheet', () => {
  const [one, two, other] = [waits('1', '2024'), waits('2', '2025'), waits('3', '2024', 'b')]
  expect(sheetsToTake(one, [one, other])).toEqual(['2025'])
  expect(usualLabel(one, [one, other])).toBe('years.xlsx')
  expect(sheetsToTake(one, [one, two, other])).toEqual([])
  expect(sheetsBeside(one, [one, two, other])).toEqual([two])
  expect([one, two, other].map((each) => usualLabel(each, [one, two, other]))).toEqual(['2024', '2025', 'years.xlsx'])
})
