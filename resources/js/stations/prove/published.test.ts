import { expect, test } from 'vitest'
import { figureOf, published } from '@/stations/prove/published'

test('figures are read as people write them, and nothing else is taken for one', () => {
  expect(figureOf('1,412.60')).toBe('1412.60')
  expect(figureOf(' −12 345 678 ')).toBe('-12345678')
  expect(figureOf('12.34.56')).toBeNull()
  expect(figureOf('about 12')).toBeNull()
})

test('what is pasted is a group and a figure on each line; other lines are told', () => {
  expect(published('KB\t3,007.20\nLM;9\n\n83,683.44\ntotal of all\nKB\t2021\t5\n', 1)).toEqual({
    lines: [
      { labels: ['KB'], figure: '3007.20' },
      { labels: ['LM'], figure: '9' },
      { labels: [], figure: '83683.44' },
    ],
    unread: ['total of all', 'KB\t2021\t5'],
  })
})
