import { beforeEach, describe, expect, it, vi } from 'vitest'
import { effectScope, ref } from 'vue'
import type { Schemas } from '@/api/client'
import { useDraft } from '@/composables/useDraft'

const { mutate, loaded } = vi.hoisted(() => ({ mutate: vi.fn(), loaded: { value: undefined as unknown } }))
vi.mock('@tanstack/vue-query', () => ({
  useQueryClient: () => ({ setQueriesData: vi.fn(), invalidateQueries: vi.fn() }),
  useQuery: () => ({ data: ref(loaded.value) }),
  useMutation: ({ onSuccess }: { onSuccess: (saved: unknown) => void }) => ({ mutate: (draft: unknown) => (mutate(draft), onSuccess({ draft })) }),
}))

type Draft = Schemas['PlanDraft']
const fee = { id: 'pair-1', source: 'fee', target: 'fee', kind: 'number', forgives: ['number-form'] }
const holder = { id: 'pair-2', source: 'holder', target: 'owner', kind: 'text' }
const begun = {
  key: [{ source: 'basin', target: 'basin', forgives: ['case'] }],
  columnPairs: [fee, holder],
  leftOut: { source: ['clerk'], target: [] },
} as unknown as Draft

const draft = (station: 'match' | 'prepare' = 'match') =>
  effectScope().run(() => useDraft(() => ({ id: 7, source: null, target: null, keyColumns: [] }) as unknown as Schemas['Course'], { station })) as ReturnType<
    typeof useDraft
  >
const kept = (): Draft => mutate.mock.lastCall?.[0] as Draft

describe('the draft of a plan', () => {
  beforeEach(() => {
    mutate.mockReset()
    sessionStorage.clear()
    loaded.value = { draft: begun }
  })

  it('pairs a column with another, and whatever held it lets go', () => {
    draft().pair('clerk', 'owner')

    expect(kept().columnPairs.map(({ source, target }) => `${source}:${target}`)).toEqual(['fee:fee', 'clerk:owner'])
    expect(kept().leftOut.source).toEqual([])
  })

  it('pairs all that is confirmed at once, and lets go of nothing that is paired', () => {
    draft().pairAll(
      [
        { source: 'clerk', target: 'agent' },
        { source: 'note', target: 'owner' },
      ],
      ['clerk', 'note'].map((source) => ({ source, target: 'agent', kind: 'number' as const, declares: {} })),
    )

    expect(kept().columnPairs.map(({ source, target }) => `${source}:${target}`)).toEqual(['fee:fee', 'holder:owner', 'clerk:agent'])
    expect(kept().columnPairs[2]).toMatchObject({ kind: 'number', forgives: ['number-form'] })
    expect(kept().leftOut.source).toEqual([])
  })

  it('can take back, on a page that was loaded again, what was changed before, unless somebody else changed it since', () => {
    const before = draft()
    before.readAs([{ source: 'holder', target: 'holder', kind: 'date', declares: {} }])
    before.flag({ source: 'clerk' }, true)
    before.undo()
    loaded.value = { draft: JSON.parse(JSON.stringify(kept())) }

    const after = draft()
    expect([after.canUndo.value, after.canRedo.value]).toEqual([true, true])
    after.undo()
    expect(kept()).toEqual(begun)

    const elsewhere = draft('prepare')
    expect([elsewhere.canUndo.value, elsewhere.canRedo.value]).toEqual([false, false])
    loaded.value = { draft: { ...begun, columnPairs: [fee] } }
    const others = draft()
    expect([others.canUndo.value, others.canRedo.value]).toEqual([false, false])
  })

  it('uses an advised key, and compares what was in the key before', () => {
    draft().useKey([{ source: 'holder', target: 'owner' }])
    expect(kept().key).toEqual([{ source: 'holder', target: 'owner' }])
    expect(kept().columnPairs.map(({ source }) => source)).toEqual(['basin', 'fee'])

    draft().useKey([
      { source: 'basin', target: 'basin' },
      { source: 'fee', target: 'fee' },
    ])
    expect(kept().key[0]).toEqual({ source: 'basin', target: 'basin', forgives: ['case'] })
  })

  it('reads pairs as the kind that they look like, which forgives its own form', () => {
    draft().readAs([{ source: 'holder', target: 'keeper', kind: 'date', declares: { target: { dateForms: ['dd/MM/yyyy'] } } }])

    expect(kept().columnPairs).toEqual([fee, { ...holder, kind: 'date', forgives: ['date-form'] }])
    expect(kept().sides).toEqual({ target: { columns: { keeper: { dateForms: ['dd/MM/yyyy'] } } } })
  })

  it('gives what one pair forgives to others, but for what their kinds are about, and to pairs that are made later', () => {
    const { forgiveIn, forgiveByDefault, pair } = draft()
    forgiveIn(['fee', 'holder'], ['case', 'date-form'])
    expect(kept().columnPairs).toMatchObject([{ forgives: ['case', 'number-form'] }, { forgives: ['case'] }])
    forgiveByDefault(['spacing', 'number-form'])
    expect(kept().defaults).toEqual({ forgives: ['spacing'] })
    pair('clerk', 'clerk_no')
    expect(kept().columnPairs.at(-1)).toMatchObject({ source: 'clerk', forgives: ['spacing'] })
  })

  it('knows sensitive columns by their side, whatever they are used for', () => {
    const { flag, toggleKey, pair } = draft()
    flag({ source: 'fee', target: 'fee' }, true)
    flag({ target: 'loaded' }, true)
    toggleKey({ source: 'fee', target: 'fee' })
    pair('fee', null)
    expect(kept().sensitive).toEqual({ source: ['fee'], target: ['fee', 'loaded'] })
    flag({ source: 'fee', target: 'fee' }, false)

    expect(kept().sensitive).toEqual({ source: [], target: ['loaded'] })
  })

  it('sets what the target demands, and takes it away', () => {
    const { demand } = draft()
    demand('owner', { mostCharacters: 20 })
    expect(kept().demands).toEqual({ owner: { mostCharacters: 20 } })
    demand('owner', {})
    expect(kept().demands).toEqual({})
  })

  it('leaves a column out, and keeps the rules of the others', () => {
    draft().pair('holder', null)

    expect(kept().columnPairs).toEqual([fee])
    expect(kept().leftOut.source).toEqual(['clerk', 'holder'])
  })

  it('gives a key column another partner without losing what it forgives', () => {
    draft().pair('basin', 'basin_code')

    expect(kept().key).toEqual([{ source: 'basin', target: 'basin_code', forgives: ['case'] }])
  })

  it('takes a column into the key and out of it again', () => {
    const { toggleKey } = draft()
    toggleKey({ source: 'holder', target: 'owner' })
    expect(kept().key.map(({ source }) => source)).toEqual(['basin', 'holder'])
    expect(kept().columnPairs).toEqual([fee])

    toggleKey({ source: 'holder', target: 'owner' })
    expect(kept().key.map(({ source }) => source)).toEqual(['basin'])
    expect(kept().columnPairs[0]).toMatchObject({ source: 'holder', target: 'owner', kind: 'text' })
  })

  it('sets rules of one pair, or of a key column, and of no other', () => {
    const { rule } = draft()
    rule('fee', { tolerance: { by: 'absolute', most: '0.01' } })
    rule('basin', { forgives: ['spacing'] })

    expect(kept().columnPairs).toEqual([{ ...fee, tolerance: { by: 'absolute', most: '0.01' } }, holder])
    expect(kept().key[0]?.forgives).toEqual(['spacing'])
  })

  it('declares how a column is read beside how its side is', () => {
    const { declare, declareSide } = draft()
    declareSide('target', { decimalMark: ',' })
    declare('target', 'fee', { blankTokens: ['NULL'] })
    declare('target', 'fee', { dateForms: ['dd/MM/yyyy'] })

    expect(kept().sides).toEqual({ target: { decimalMark: ',', columns: { fee: { blankTokens: ['NULL'], dateForms: ['dd/MM/yyyy'] } } } })
  })

  it('pairs repeats in order on both sides or on none', () => {
    const { repeat } = draft()
    repeat('source', { policy: 'pair-in-order' })
    expect([kept().sides?.source?.repeats?.policy, kept().sides?.target?.repeats?.policy]).toEqual(['pair-in-order', 'pair-in-order'])

    repeat('target', { policy: 'keep-first' })
    expect([kept().sides?.source?.repeats?.policy, kept().sides?.target?.repeats?.policy]).toEqual(['set-aside', 'keep-first'])
  })

  it('takes back and does again, each kept at once; a new change ends what was undone', () => {
    const { prepareSide, undo, redo, canUndo, canRedo, draft: now } = draft()
    prepareSide('source', [{ id: 'a', kind: 'leave-out-blank-rows' }])
    prepareSide('source', [])
    undo()
    expect(kept().sides?.source?.preparation).toHaveLength(1)
    undo()
    expect(now.value).toEqual(begun)
    expect([canUndo.value, canRedo.value]).toEqual([false, true])
    redo()
    expect(kept().sides?.source?.preparation).toHaveLength(1)
    prepareSide('target', [{ id: 'b', kind: 'leave-out-blank-rows' }])
    expect(canRedo.value).toBe(false)
    expect(mutate).toHaveBeenCalledTimes(6)
  })

  it('changes nothing before it is loaded', () => {
    loaded.value = { draft: null }
    const { pair, undo, redo } = draft()
    pair('basin', 'basin')
    undo()
    redo()

    expect(mutate).not.toHaveBeenCalled()
  })
})
