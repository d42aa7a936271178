import { expect, it } from 'vitest'
import { saidOf, taking } from '@/stations/review/rows/rowList'

const labels = { source: 'Old register', target: 'New register' }

it('says where rows stand, with their number once it is known', () => {
  const counts = { source: { alone: 3, both: 10, unkeyed: 1 }, target: { alone: 1, both: 11, unkeyed: 0 } }
  expect(saidOf(labels, counts).map(({ name, rows }) => `${name}: ${rows}`)).toEqual([
    'on one side alone: 4 rows',
    'in the old register alone: 3 rows',
    'in the new register alone: 1 row',
    'on both sides: 21 rows',
    'anywhere: 26 rows',
  ])
  expect(saidOf(labels, undefined).map(({ rows }) => rows)).toEqual(['', '', '', '', ''])
})

it('looks up nothing before it is said where, by what and which columns', () => {
  const step = { id: 'a', kind: 'look-up', reference: 'Basins', on: [{ column: 'basin', reference: 'code' }] }
  expect(taking(step, undefined)).toEqual([])
  expect(taking(step, 'Basins')).toEqual([])
  expect(taking({ ...step, take: [{ reference: 'name', into: 'x' }], forgives: ['case'] }, 'Basins')).toEqual([
    { reference: 'Basins', on: step.on, take: ['name'], forgives: ['case'] },
  ])
})
