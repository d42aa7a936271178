import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { answer, api, type Schemas } from '@/api/client'

/** What must have a record in another dataset, as a tally found it; it never changes. */
export function useRequiredRecords(tally: () => number) {
  return useQuery({
    queryKey: ['tally', tally, 'required-records'],
    queryFn: ({ signal }) => answer(api.GET('/tallies/{tally}/required-records', { params: { path: { tally: tally() } }, signal })),
    enabled: () => tally() > 0,
  })
}

/** A page of the values without a record of one kind, or of the records that nothing refers to. */
export function useRecordLines(tally: () => number, number: () => number, list: () => Schemas['RecordList'], from: () => number) {
  return useQuery({
    queryKey: ['tally', tally, 'required-records', number, list, from],
    queryFn: ({ signal }) =>
      answer(
        api.GET('/tallies/{tally}/required-records/{number}/lines', {
          params: { path: { tally: tally(), number: number() }, query: { list: list(), from: from() } },
          signal,
        }),
      ),
    placeholderData: keepPreviousData,
  })
}

/** What probably refers to records, by names and values. */
export function useRecordProposals(dataset: () => number) {
  return useQuery({
    queryKey: ['dataset', dataset, 'required-record-proposals'],
    queryFn: ({ signal }) => answer(api.GET('/datasets/{dataset}/required-record-proposals', { params: { path: { dataset: dataset() } }, signal })),
  })
}
