import { flushPromises } from '@vue/test-utils'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { ref } from 'vue'
import { ApiProblem, type Schemas } from '@/api/client'
import { useJoin } from '@/composables/useJoin'
import { useServer } from '@/testing/server'

const { PUT, POST } = useServer()
type Draft = Schemas['PlanDraft']
const draftOf = (kind: string) => ({ key: [], columnPairs: [{ source: 'fee', target: 'fee', kind }], leftOut: { source: [], target: [] } }) as unknown as Draft
const planOf = (draft: Draft, number: number) => ({ draft, number }) as unknown as Schemas['Plan']
const changed = new ApiProblem(412, 'draft-changed', 'Changed', 'Somebody else changed it.')
const joinOf = (kind: string, clashes: object[] = []) => ({
  draft: draftOf(kind),
  number: 5,
  by: 'Jonas Havelund',
  theirChanges: ['the key is berth'],
  clashes,
})
const numbers = () => PUT.mock.calls.map(([, { params }]) => (params as { header: Record<string, string> }).header['If-Match'])

describe('two people on one draft', () => {
  beforeEach(() => vi.resetAllMocks())
  let datasets = 0
  const begun = () => {
    const draft = ref<Draft | null>(draftOf('number'))
    const dataset = ++datasets
    const join = useJoin(() => dataset, draft)
    join.remember(planOf(draftOf('text'), 4))
    return { draft, ...join }
  }

  it('joins what does not meet, says what the other did, and saves that', async () => {
    const { draft, save, joined } = begun()
    const onJoined = vi.fn()
    PUT.mockRejectedValueOnce(changed).mockResolvedValueOnce(planOf(draftOf('joined'), 6))
    POST.mockResolvedValueOnce(joinOf('joined'))

    await save(draftOf('number'), onJoined)

    expect(POST).toHaveBeenCalledWith('/datasets/{dataset}/draft-joins', {
      params: { path: { dataset: 1 } },
      body: { base: draftOf('text'), mine: draftOf('number'), settled: { mine: [], theirs: [] } },
    })
    expect(draft.value).toEqual(draftOf('joined'))
    expect(numbers()).toEqual(['"4"', '"5"'])
    expect(joined.value).toMatchObject({ by: 'Jonas Havelund', theirChanges: ['the key is berth'] })
    expect(onJoined).toHaveBeenCalledOnce()
  })

  it('waits where both changed the same until it is chosen', async () => {
    const { draft, save, joined, choose } = begun()
    PUT.mockRejectedValueOnce(changed).mockResolvedValueOnce(planOf(draftOf('date'), 6))
    POST.mockResolvedValueOnce(joinOf('date', [{ at: '/columnPairs/a/kind', mine: 'number', theirs: 'date' }])).mockResolvedValueOnce(joinOf('number'))

    const saved = save(draftOf('number'), () => {})
    await flushPromises()
    expect([joined.value?.clashes.length, PUT.mock.calls.length]).toEqual([1, 1])
    choose({ mine: ['/columnPairs/a/kind'], theirs: [] })
    await saved

    expect(POST.mock.lastCall?.[1]).toMatchObject({ body: { settled: { mine: ['/columnPairs/a/kind'], theirs: [] } } })
    expect(draft.value).toEqual(draftOf('number'))
  })

  it('takes along what was changed while the answer was on its way', async () => {
    const { draft, save } = begun()
    PUT.mockRejectedValueOnce(changed).mockResolvedValueOnce(planOf(draftOf('both'), 6))
    POST.mockImplementationOnce(() => {
      draft.value = draftOf('later')
      return Promise.resolve(joinOf('joined'))
    }).mockResolvedValueOnce(joinOf('both'))

    await save(draftOf('number'), () => {})

    expect(POST.mock.lastCall?.[1]).toMatchObject({ body: { mine: draftOf('later') } })
    expect(draft.value).toEqual(draftOf('both'))
  })

  it('joins without a word what another station of the page has saved', async () => {
    const { save } = begun()
    PUT.mockResolvedValueOnce(planOf(draftOf('number'), 5))
    await save(draftOf('number'), () => {})
    // Another station of the same dataset has loaded the draft before that.
    const draft = ref<Draft | null>(draftOf('date'))
    const other = useJoin(() => datasets, draft)
    other.remember(planOf(draftOf('text'), 4))
    POST.mockResolvedValueOnce(joinOf('both'))
    PUT.mockResolvedValueOnce(planOf(draftOf('both'), 6))
    await other.save(draftOf('date'), () => {})

    expect(numbers()).toEqual(['"4"', '"5"'])
    expect([draft.value, other.joined.value]).toEqual([draftOf('both'), null])
  })

  it('fails as before where something else is wrong', async () => {
    PUT.mockRejectedValueOnce(new ApiProblem(422, 'unusable-plan', 'No', 'It cannot be used.'))
    await expect(begun().save(draftOf('number'), () => {})).rejects.toThrow('It cannot be used.')
    expect(POST).not.toHaveBeenCalled()
  })
})
