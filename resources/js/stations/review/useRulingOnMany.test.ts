import { describe, expect, it, vi } from 'vitest'
import { computed } from 'vue'
import { useRulingOnMany } from '@/stations/review/useRulingOnMany'

function desk(findings: number | null, mayRule = true) {
  const rule = vi.fn()
  const all = computed(() => (findings === null ? null : { findings }))
  return { rule, ...useRulingOnMany(all, () => mayRule, rule) }
}

describe('a ruling on all findings by key', () => {
  it('is entered at once on a hundred, and asked about on one more', () => {
    const [few, many] = [desk(100), desk(101)]
    few.askOrRule('defect')
    many.askOrRule('defect')

    expect(few.rule.mock.calls).toEqual([['defect']])
    expect(few.isAsking.value).toBe(false)
    expect(many.rule).not.toHaveBeenCalled()
    expect([many.isAsking.value, many.pending.value]).toEqual([true, 'defect'])
  })

  it('does nothing for who may not rule, or where there is nothing', () => {
    const [viewer, nothing] = [desk(5, false), desk(null)]
    viewer.askOrRule('expected')
    nothing.askOrRule('expected')

    expect([viewer.rule.mock.calls, nothing.rule.mock.calls, viewer.isAsking.value]).toEqual([[], [], false])
  })
})
