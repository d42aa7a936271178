import { beforeEach, describe, expect, it, vi } from 'vitest'
import { missing, useWhy } from '@/stations/review/useWhy'

const begin = () => {
  const enter = vi.fn()
  return { enter, ...useWhy(() => 7, enter) }
}

describe('why something is ruled', () => {
  beforeEach(() => sessionStorage.clear())

  it('is wanted of what is expected or a defect; who is asked of a question; nothing of what is opened again', () => {
    const why = { reason: ' ', ticket: '', askedId: null }
    expect([missing('expected', why), missing('defect', why), missing('ask', why), missing('open', why)]).toEqual(['reason', 'reason', 'person', null])
    expect(missing('ask', { ...why, askedId: 3 })).toBeNull()
  })

  it('waits for the reason, and does not slide on to the next', () => {
    const { enter, decide, confirm, why, waiting, recent } = begin()
    decide('expected', false)
    confirm()
    expect([enter.mock.calls.length, waiting.value]).toEqual([0, { decision: 'expected', onAll: false }])
    why.value = { reason: ' a duplicate of a paper form ', ticket: 'WM-4', askedId: null }
    confirm()

    expect(enter).toHaveBeenCalledWith('expected', false, { reason: 'a duplicate of a paper form', ticket: 'WM-4', askedId: null })
    expect([why.value.reason, why.value.ticket, waiting.value, recent.value]).toEqual(['', '', null, ['a duplicate of a paper form']])
  })

  it('takes the last reason where nothing else is said, also after the page was loaded again', () => {
    const first = begin()
    first.decide('defect', true)
    first.why.value = { ...first.why.value, reason: 'cut by the loader' }
    first.confirm()
    const again = begin()
    again.decide('defect', true)
    again.confirm()

    expect(again.enter).toHaveBeenCalledWith('defect', true, { reason: 'cut by the loader', ticket: '', askedId: null })
  })

  it('is used again at once where it is pinned', () => {
    const { enter, decide, why, isPinned } = begin()
    why.value = { reason: 'old form', ticket: '', askedId: null }
    isPinned.value = true
    decide('expected', false)
    decide('expected', false)

    expect(enter).toHaveBeenCalledTimes(2)
    expect(why.value.reason).toBe('old form')
  })
})
