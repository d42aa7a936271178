import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { answer, api, type Schemas } from '@/api/client'

const WHILE_IT_IS_FOUND = 600

/** Samples of rows that agree, and how large one would be. */
export function useEyeChecks(tally: () => number) {
  const queries = useQueryClient()
  const checks = useQuery({
    queryKey: ['tally', tally, 'eye-checks'],
    queryFn: ({ signal }) => answer(api.GET('/tallies/{tally}/eye-checks', { params: { path: { tally: tally() } }, signal })),
    enabled: () => tally() > 0,
  })
  const draw = useMutation({
    mutationFn: (body: { confidence: number; share: number }) =>
      answer(api.POST('/tallies/{tally}/eye-checks', { params: { path: { tally: tally() } }, body })),
    onSuccess: () => queries.invalidateQueries({ queryKey: ['tally', tally(), 'eye-checks'] }),
  })
  return { checks, draw }
}

/** One of them: its rows with what was said, and what somebody says next. */
export function useEyeCheck(check: () => number, place: () => number) {
  const queries = useQueryClient()
  const rows = useQuery({
    queryKey: ['eye-check', check],
    queryFn: ({ signal }) => answer(api.GET('/eye-checks/{eyeCheck}', { params: { path: { eyeCheck: check() } }, signal })),
    enabled: () => check() > 0,
    refetchInterval: ({ state }) => (state.data?.isWaiting === true ? WHILE_IT_IS_FOUND : false),
  })
  const row = useQuery({
    queryKey: ['eye-check', check, 'row', place],
    queryFn: ({ signal }) => answer(api.GET('/eye-checks/{eyeCheck}/rows/{place}', { params: { path: { eyeCheck: check(), place: place() } }, signal })),
    enabled: () => check() > 0 && rows.data.value?.isWaiting === false && rows.data.value.rows.length >= place() && !rows.data.value.hidesKeys,
    refetchInterval: ({ state }) => (state.data?.isWaiting === true ? WHILE_IT_IS_FOUND : false),
    placeholderData: keepPreviousData,
  })
  const refresh = () => queries.invalidateQueries({ queryKey: ['eye-check', check()], exact: true })
  const say = useMutation({
    mutationFn: (body: { place: number; verdict: Schemas['EyeVerdictName']; remark: string }) =>
      answer(api.POST('/eye-checks/{eyeCheck}/verdicts', { params: { path: { eyeCheck: check() } }, body })),
    onSuccess: refresh,
  })
  const give = useMutation({
    mutationFn: (person: number) => answer(api.POST('/eye-checks/{eyeCheck}/people', { params: { path: { eyeCheck: check() } }, body: { person } })),
    onSuccess: refresh,
  })
  return { rows, row, say, give }
}
