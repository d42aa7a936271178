import { expect, it } from 'vitest'
import {
  partOf,
  partsOf,
  chanceWarning,
  columnsShown,
  comparedColumns,
  type Found,
  type Group,
  neighbours,
  originSentence,
  patternName,
  proposedToLeaveOut,
  sideSentence,
  stakeSentence,
  warnings,
} from '@/stations/review/repeats/repeats'

const figures = { rows: 100, blank: 2, combinations: 88, groups: 10, inGroups: 20, beyondFirst: 10, copies: 8, conflicts: 2, byForm: 1, onlyHere: 3 }
const block = { kind: 'block' as const, rows: 50, part: 1, from: 102, to: 151, ofPart: 1, ofFrom: 22, ofTo: 71 }

it('says of each side how many rows repeat, with the rest of its rows', () => {
  expect(sideSentence(figures)).toBe(
    '100 rows, 88 different values in these columns, 2 rows with nothing there. 20 rows repeat in 10 groups, 10 beyond the first of each: 8 groups of copies, 2 groups in conflict.',
  )
  expect(sideSentence({ ...figures, groups: 0 })).toBe('100 rows, and no two share these values.')
  expect(warnings(figures, 'New register')).toEqual([
    '3 groups that repeat here and do not exist in the new register at all.',
    '1 group that repeats only because a difference of form is ignored.',
  ])
})

it('says what repeats add to a total, before and after', () => {
  expect(stakeSentence('fee', { all: '12400.50', beyondFirst: '-7.25', without: '12407.75' })).toBe(
    'fee adds up to 12,400.50; −7.25 of it stands beyond the first of each group: 12,407.75 without.',
  )
})

it('says where repeats come from', () => {
  expect(originSentence(block, figures)).toBe('A block stands twice: lines 102 to 151 are lines 22 to 71 again, 50 rows.')
  expect(originSentence({ ...block, rows: 88 }, { ...figures, rows: 176, combinations: 88 })).toMatch(/^The whole table stands twice/)
  expect(originSentence({ ...block, rows: 30 }, figures)).toBe('30 rows in lines 102 to 151 stand 80 lines behind those that they repeat.')
  expect(originSentence({ ...block, kind: 'part', part: 2, rows: 20 }, figures)).toBe(
    '20 rows of part 2 (lines 102 to 151) stand in part 1 already (lines 22 to 71).',
  )
  expect(originSentence({ ...block, kind: 'scattered', rows: 1 }, figures)).toBe('1 row here and there.')
})

it('proposes the column that alone keeps most groups from being copies', () => {
  const pattern = (columns: string[], groups: number) => ({ side: 'source' as const, columns, groups, rows: 2 * groups, beyondFirst: groups, largest: [] })
  const found = { figures: { source: figures }, patterns: [pattern([], 5), pattern(['loaded'], 3), pattern(['fee'], 1)] } as unknown as Found
  expect(proposedToLeaveOut(found, 'source', ['berth'], [])).toEqual({ column: 'loaded', groups: 3 })
  expect(proposedToLeaveOut(found, 'source', ['berth'], ['loaded'])).toBeNull()
  expect(patternName(pattern(['a', 'b', 'c', 'd', 'e'], 1))).toBe('a, b, c and 2 more')
  expect(columnsShown(['basin', 'berth', 'fee', 'loaded'], ['basin', 'berth'], ['fee'], false)).toEqual([2])
  expect(columnsShown(['basin', 'berth', 'fee', 'loaded'], ['basin', 'berth'], [], false)).toEqual([0, 1])
  const group = { source: { differing: ['fee', 'loaded'] }, target: { differing: [] } } as unknown as Group
  expect(comparedColumns(group, 'target', [{ source: 'fee', target: 'charge' }])).toEqual(['charge'])
})

it('says what one column more or less would give, and what chance gives', () => {
  const beside = {
    source: { rows: 100, now: 5, chance: 0, less: [60, 40], more: [0] },
    target: { rows: 90, now: 0, chance: 0, less: [50, 30], more: [0] },
  }
  const found = { beside, others: [{ source: 'fee', target: 'charge' }] } as unknown as Found
  const chosen = ['basin', 'berth'].map((name) => ({ source: name, target: name }))
  expect(neighbours(found, chosen)).toEqual([
    { column: 'basin', isMore: false, beyond: { source: 60, target: 50 } },
    { column: 'berth', isMore: false, beyond: { source: 40, target: 30 } },
    { column: 'fee', isMore: true, beyond: { source: 0, target: 0 } },
  ])
  expect(neighbours(found, chosen.slice(0, 1)).map(({ isMore }) => isMore)).toEqual([true])
  expect(chanceWarning({ ...beside.source, now: 82, chance: 80 })).toBe(
    'So few values stand in these columns that chance alone puts about 80 of 100 rows beyond the first of a group, and 82 are: most of these repeats say nothing.',
  )
  expect([chanceWarning(beside.source), chanceWarning({ ...beside.source, now: 90, chance: 40 })]).toEqual(['', ''])
})

it('offers parts of values as their kind has them', () => {
  const parts = partsOf([
    { column: 'seen', kind: 'date-time' },
    { column: 'basin', kind: 'text' },
  ])
  expect(parts.map(({ name }) => name).slice(0, 5)).toEqual([
    'the day of seen',
    'the month of seen',
    'the year of seen',
    'the first character of basin',
    'the first 2 characters of basin',
  ])
  expect(partOf(parts[4]?.id ?? '')).toEqual({ column: 'basin', part: 'start', length: 2 })
})
