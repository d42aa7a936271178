import { beforeEach, describe, expect, it } from 'vitest'
import { usePaneSize } from '@/composables/usePaneSize'

const pane = () => usePaneSize('record', 372, 240, 640)

describe('the width of a pane', () => {
  beforeEach(() => localStorage.clear())

  it('stays within its bounds', () => {
    const { width, resize } = pane()
    expect(width.value).toBe(372)
    resize(100)
    expect(width.value).toBe(240)
    resize(2_000)
    expect(width.value).toBe(640)
  })

  it('is found again in the next visit, closed or not', () => {
    pane().resize(500)
    expect(pane().width.value).toBe(500)
    pane().toggle()
    expect(pane().width.value).toBe(0)
    expect(pane().isClosed.value).toBe(true)
  })

  it('opens again as wide as it was', () => {
    const { width, resize, toggle } = pane()
    resize(444)
    toggle()
    toggle()
    expect(width.value).toBe(444)
  })

  it.each(['wide', '-3', 'NaN'])('is the usual one when what was kept is of no use: "%s"', (kept) => {
    localStorage.setItem('nine-tally:pane:record', kept)
    expect(pane().width.value).toBe(372)
  })
})
