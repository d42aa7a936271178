import { describe, expect, it } from 'vitest'
import { sortFile } from '@/stations/board/sortFiles'

const datasets = [
  { id: 1, name: 'Moorings' },
  { id: 2, name: 'Berth charges' },
  { id: 3, name: 'Berths' },
]
const labels = { source: 'Old register', target: 'New register' }

describe('files that are dropped on the board', () => {
  it.each([
    ['moorings_old.csv', { dataset: 1, side: 'source' }],
    ['MooringNew.csv.gz', { dataset: 1, side: 'target' }],
    ['berth-charges target 2026-11.xlsx', { dataset: 2, side: 'target' }],
    ['berths_source.json', { dataset: 3, side: 'source' }],
    ['export.csv', { dataset: null, side: null }],
    ['moorings.csv', { dataset: 1, side: null }],
    ['old_to_new_moorings.csv', { dataset: 1, side: null }],
  ] as const)('%s is sorted by its name, or asked about', (name, sorted) => {
    expect(sortFile(name, datasets, labels)).toEqual(sorted)
  })
})
