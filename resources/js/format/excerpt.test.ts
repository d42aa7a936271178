import { expect, it } from 'vitest'
import { difference } from '@/format/difference'
import { excerpt } from '@/format/excerpt'

it('shows of a long value what is near its differences', () => {
  const weeps = 'Quay wall weeps. '.repeat(600)
  const { source, target } = difference(`${weeps}spring${weeps}`, `${weeps}winter${weeps}`)
  const said = (stretches: typeof source): string =>
    excerpt(stretches)
      .map(({ text }) => text)
      .join('')

  expect(said(source)).toMatch(/^….{80}spring.{80}…$/)
  expect(said(target)).toContain('winter')
  expect(excerpt(difference('short', 'shirt').source)).toEqual(difference('short', 'shirt').source)
  expect(said([{ text: '🚤'.repeat(700), differs: false }])).toBe(`${'🚤'.repeat(600)}…`)
})
