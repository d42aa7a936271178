import { describe, expect, it } from 'vitest'
import { dateFormName, dateFormOf, declaredInWords, hasShortYears, partsOf, writtenIn } from '@/format/forms'

const day = new Date(2026, 10, 3, 14, 5, 9)

describe('forms of values', () => {
  it.each([
    ['dd/MM/yyyy', '03/11/2026'],
    ['d-MMM-yy', '3-Nov-26'],
    ["d 'de' MMM 'de' yyyy", '3 de Nov de 2026'],
    ["yyyy-MM-dd'T'HH:mm:ss", '2026-11-03T14:05:09'],
    ['MM/dd/yyyy h:mm a', '11/03/2026 2:05 pm'],
    ['day-number-1900', '46329'],
    ['day-number-1904', '44867'],
  ])('show today as %s writes it', (form, written) => {
    expect(writtenIn(form, day)).toBe(written)
  })

  it('name their parts, and not their letters', () => {
    expect(partsOf('MM/dd/yyyy h:mm a')).toBe('month/day/year with a time')
    expect(dateFormName('yyyyMMdd', day)).toBe('20261103 (year month day)')
    expect(partsOf('day-number-1900')).toBe('number of days since 1900')
  })

  it('are put together from their parts', () => {
    const parts = { order: 'month-day-year', between: '/', month: 'number', year: 2, digits: 'as needed', time: 'HH:mm' } as const
    expect(dateFormOf(parts)).toBe('M/d/yy HH:mm')
    expect(dateFormOf({ ...parts, order: 'day-month-year', between: ' ', month: 'name', year: 4, time: '' })).toBe('d MMM yyyy')
    expect([hasShortYears(['M/d/yy']), hasShortYears(['M/d/yyyy'])]).toEqual([true, false])
  })

  it('say what is declared of numbers and of words', () => {
    expect(declaredInWords({ decimalMark: ',', groupMark: '.', currency: '€', percent: 'share', negatives: 'parentheses' })).toEqual([
      'decimals after a comma',
      'a point between thousands',
      'amounts in €',
      '5 % is 0.05',
      'negative in parentheses',
    ])
    expect(declaredInWords({ dateForms: ['dd.MM.yy'], twoDigitYearsFrom: 1950, yes: ['ja'], blankTokens: ['NULL'] }, day)).toEqual([
      '"NULL" means blank',
      '03.11.26 (day.month.year)',
      'years 1950 to 2049',
      'ja is yes',
    ])
  })
})
