import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { ref, watch } from 'vue'
import { answer, api, type Schemas } from '@/api/client'
import { useSession } from '@/composables/useSession'
import { counted } from '@/format/counts'

const EVERY = 4000

/** What others did, from one small address that is asked while the page is seen: what it shows follows, and the newest of it is said. */
export function useNews(dataset: () => number) {
  const queries = useQueryClient()
  const session = useSession()
  const said = ref('')
  const { data } = useQuery({
    queryKey: ['news', dataset],
    queryFn: ({ signal }) => answer(api.GET('/datasets/{dataset}/news', { params: { path: { dataset: dataset() } }, signal })),
    refetchInterval: EVERY,
  })
  const isOther = (by: string): boolean => by !== '' && by !== session.data.value?.person?.name
  /** Said when the page shows it: whoever reads it may rule at once, on what they see. */
  const say = async (by: string, what: string, ...shown: unknown[][]): Promise<void> => {
    await Promise.allSettled(shown.map((queryKey) => queries.invalidateQueries({ queryKey })))
    if (isOther(by)) said.value = `${by} ${what}`
  }

  watch(data, (now, before) => {
    // A page that is opened has just asked for all of it.
    if (now === undefined || before === undefined) return
    follow(now, before)
  })
  function follow(now: Schemas['News'], before: Schemas['News']): void {
    if (now.tally !== null && now.tally.id !== before.tally?.id) {
      void say(now.tally.by, `made tally ${now.tally.number}.`, ['dataset'])
    } else if (now.run !== before.run) {
      void queries.invalidateQueries({ queryKey: ['dataset'] })
    }
    if (now.act !== null && now.act.id !== before.act?.id && now.tally !== null) {
      const what = now.act.decision === null ? 'took back a ruling' : `ruled ${now.act.decision}`
      const sentence = `${what} on ${counted(now.act.findings, 'finding')} of tally ${now.tally.number}.`
      void say(now.act.by, sentence, ['tally', now.tally.id], ['dataset'])
    }
    if (now.draft !== null && now.draft.number !== before.draft?.number) {
      void say(now.draft.by, 'changed the plan.', ['dataset', dataset(), 'plan'])
    }
  }
  return { said, dismiss: () => (said.value = '') }
}
