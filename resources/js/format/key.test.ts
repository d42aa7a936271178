import { expect, it } from 'vitest'
import { keyCells } from '@/format/key'

it('reads the cells of a key, quotes and blanks among them', () => {
  expect(keyCells('KB,77')).toEqual(['KB', '77'])
  expect(keyCells('"a,""b",,x')).toEqual(['a,"b', '', 'x'])
  expect(keyCells(',7')).toEqual(['', '7'])
  expect(keyCells('KB')).toEqual(['KB'])
})
