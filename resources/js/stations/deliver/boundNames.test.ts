import { expect, it } from 'vitest'
import { namesIn } from '@/stations/deliver/boundNames'

it('finds names that stand for values, and nothing within text, comments and casts', () => {
  expect(namesIn("SELECT a::text, ':no' FROM t -- :no\nWHERE a = :season AND b < :last AND c = :season AND d[1:2] /* :no */")).toEqual(['season', 'last'])
  expect(namesIn('SELECT 1')).toEqual([])
})
