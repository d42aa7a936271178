import { type Ref, ref } from 'vue'
import { answer, api, ApiProblem, type Schemas } from '@/api/client'

type Draft = Schemas['PlanDraft']

/** What somebody else did to the draft meanwhile, and, where both did the same thing, what has to be chosen. */
export interface Joining {
  by: string
  theirChanges: readonly string[]
  clashes: Schemas['DraftJoin']['clashes']
}

interface Seen {
  /** as the server had it last */
  draft: Draft
  number: number
}

/** The number under which this page saved a draft last: of two stations of it the second may still have loaded the one before. */
const savedHere = new Map<number, number>()

/**
 * Saves a draft against the number that was seen. If somebody else has saved another, both are joined: what does not meet is kept of both and
 * said, what meets waits until it is chosen.
 */
export function useJoin(dataset: () => number, draft: Ref<Draft | null>) {
  let seen: Seen | null = null
  const joined = ref<Joining | null>(null)
  let settle: ((settled: { mine: string[]; theirs: string[] }) => void) | null = null

  async function put(kept: Draft, number: number): Promise<Schemas['Plan']> {
    return answer(
      api.PUT('/datasets/{dataset}/plan', {
        params: { path: { dataset: dataset() }, header: { 'If-Match': `"${number}"` } },
        body: kept,
      }),
    )
  }

  /** The local draft joined with the one that stands on the server; asks for a choice where both changed the same. */
  async function join(base: Draft): Promise<Schemas['DraftJoin']> {
    let settled: { mine: string[]; theirs: string[] } = { mine: [], theirs: [] }
    for (;;) {
      const mine = draft.value ?? base
      const found = await answer(api.POST('/datasets/{dataset}/draft-joins', { params: { path: { dataset: dataset() } }, body: { base, mine, settled } }))
      // What this page saved itself, at another station, needs no telling.
      const isOwn = savedHere.get(dataset()) === found.number && found.clashes.length === 0
      if (!isOwn) joined.value = { by: found.by, theirChanges: found.theirChanges, clashes: found.clashes }
      if (found.clashes.length > 0) {
        const chosen = await new Promise<{ mine: string[]; theirs: string[] }>((resolve) => (settle = resolve))
        settled = { mine: [...settled.mine, ...chosen.mine], theirs: [...settled.theirs, ...chosen.theirs] }
      } else if (draft.value === null || draft.value === mine) {
        return found
      }
      // What was changed while the answer was on its way is joined too.
    }
  }

  async function save(kept: Draft, onJoined: () => void): Promise<Schemas['Plan']> {
    if (seen === null) throw new Error('The plan is still being loaded.')
    if ((savedHere.get(dataset()) ?? 0) <= seen.number) {
      try {
        return saved(await put(kept, seen.number))
      } catch (problem) {
        if (!(problem instanceof ApiProblem) || problem.code !== 'draft-changed') throw problem
      }
    }
    const found = await join(seen.draft)
    draft.value = found.draft
    onJoined()
    return saved(await put(found.draft, found.number))
  }

  function saved(plan: Schemas['Plan']): Schemas['Plan'] {
    savedHere.set(dataset(), plan.number)
    return remember(plan)
  }

  function remember(plan: Schemas['Plan']): Schemas['Plan'] {
    if (plan.draft !== null) seen = { draft: plan.draft, number: plan.number }
    return plan
  }

  return {
    joined,
    save,
    remember,
    /** An answer that was asked for before the last saving, and comes after it, is no news. */
    isNewer: (plan: Schemas['Plan']) => seen === null || plan.number > seen.number,
    choose: (settled: { mine: string[]; theirs: string[] }) => {
      settle?.(settled)
      settle = null
    },
    dismiss: () => (joined.value = null),
  }
}
