import { describe, expect, it } from 'vitest'
import { bytes, count, counted, inWords, shortCount } from '@/format/counts'
import { pieces } from '@/format/invisible'
import { duration, moment } from '@/format/moments'

describe('figures', () => {
  it('are said in full in lists and shortened on the rail', () => {
    expect(count(1_204_661)).toBe('1,204,661')
    expect(shortCount(59_871)).toBe('59,871')
    expect(shortCount(12_400_000)).toBe('12.4 M')
  })
  it('agree with their noun', () => {
    expect(counted(1, 'row')).toBe('1 row')
    expect(counted(0, 'row')).toBe('0 rows')
    expect(counted(1_500, 'key', 'keys')).toBe('1,500 keys')
  })
  it('have units', () => {
    expect([bytes(1), bytes(999), bytes(4_200_000)]).toEqual(['1 byte', '999 bytes', '4.2 MB'])
  })
  it('begin a heading as words', () => {
    expect([inWords(3), inWords(40)]).toEqual(['Three', '40'])
  })
})

describe('moments', () => {
  const now = new Date(2026, 10, 25, 12, 0)
  it('say the day only when it is not today, and the year only when it is another', () => {
    expect(moment(new Date(2026, 10, 25, 9, 12).toISOString(), now)).toBe('today 09:12')
    expect(moment(new Date(2026, 10, 24, 16, 50).toISOString(), now)).toBe('24 Nov 16:50')
    expect(moment(new Date(2025, 10, 24, 16, 50).toISOString(), now)).toBe('24 Nov 2025 16:50')
  })
  it('last seconds, minutes, hours', () => {
    expect([duration(9), duration(120), duration(4_800)]).toEqual(['9 s', '2 min', '1 h 20 min'])
  })
})

describe('characters that cannot be seen', () => {
  it('become small named tokens, and white space that is seen stays', () => {
    expect(pieces('Ann \u00A0Lee\n')).toEqual([
      { text: 'Ann ', isToken: false },
      { text: 'no-break space', isToken: true },
      { text: 'Lee', isToken: false },
      { text: 'line', isToken: true },
    ])
  })
  it('are called by their number when they have no common name', () => {
    expect(pieces('\u0007')).toEqual([{ text: 'U+0007', isToken: true }])
    expect(pieces('\u200B')).toEqual([{ text: 'zero-width space', isToken: true }])
  })
})
