import { flushPromises, mount } from '@vue/test-utils'
import { VueQueryPlugin } from '@tanstack/vue-query'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { defineComponent } from 'vue'
import { routerKey } from 'vue-router'
import { ApiProblem, type Schemas } from '@/api/client'
import { usePatternRule } from '@/stations/review/usePatternRule'
import { useServer } from '@/testing/server'

const { GET, PUT } = useServer()
const push = vi.fn()

const course = { id: 7, source: { id: 1 }, target: { id: 2 }, keyColumns: ['basin'] } as unknown as Schemas['Course']
const draft = { key: [], columnPairs: [{ id: 'a', source: 'holder', target: 'owner', kind: 'text' }], leftOut: { source: [], target: [] } }
const forgiveCase = { label: 'Let it pass', apply: () => ({ forgives: ['case' as const] }) }
function desk(source: string) {
  let made: ReturnType<typeof usePatternRule> | undefined
  mount(
    defineComponent({
      setup() {
        made = usePatternRule(
          () => course,
          () => ({ source }) as unknown as Schemas['Pattern'],
        )
        return () => null
      },
    }),
    { global: { plugins: [VueQueryPlugin], provide: { [routerKey as symbol]: { push } } } },
  )
  if (made === undefined) throw new Error('The desk was not mounted.')
  return made
}

describe('a rule of a pattern', () => {
  beforeEach(() => {
    vi.resetAllMocks()
    GET.mockResolvedValue({ draft, number: 3 })
    PUT.mockImplementation((_path: string, { body }: { body: object }) => Promise.resolve({ draft: body }))
  })

  it('reads the plan only when one is made, keeps it in the draft, and goes to Match', async () => {
    const { makeRule } = desk('holder')
    await flushPromises()
    expect(GET).not.toHaveBeenCalled()

    makeRule(forgiveCase)
    await flushPromises()
    expect(PUT).toHaveBeenCalledWith('/datasets/{dataset}/plan', {
      params: { path: { dataset: 7 }, header: { 'If-Match': '"3"' } },
      body: { ...draft, columnPairs: [{ ...draft.columnPairs[0], forgives: ['case'] }] },
    })
    expect(push).toHaveBeenCalledWith('/datasets/7/match')
  })

  it('stays where it is when the draft cannot be kept, and says why', async () => {
    PUT.mockRejectedValue(new ApiProblem(409, 'changed-meanwhile', 'Changed meanwhile', 'Somebody else changed the plan meanwhile.'))
    const { makeRule, error } = desk('holder')
    makeRule(forgiveCase)
    await flushPromises()

    expect(push).not.toHaveBeenCalled()
    expect(error.value?.message).toBe('Somebody else changed the plan meanwhile.')
  })

  it('makes none of a column that the draft no longer pairs', async () => {
    const { makeRule } = desk('gone')
    makeRule(forgiveCase)
    await flushPromises()

    expect(PUT).not.toHaveBeenCalled()
  })
})
