import { useQuery } from '@tanstack/vue-query'
import { answer, api, type Schemas } from '@/api/client'
import { timesSaid } from '@/format/scheduleTimes'

const SECOND = 1000

/** Whether one of its draws is still under way. */
export const isGoing = (found: Schemas['DatasetSchedule'] | undefined): boolean =>
  found?.past.some(({ state }) => ['asking', 'drawing', 'reading', 'waiting', 'tallying'].includes(state)) ?? false

/** When a dataset is drawn and tallied by itself, and what was drawn; looked at again while a draw is under way. */
export function useSchedule(dataset: () => number) {
  return useQuery({
    queryKey: ['dataset', dataset, 'schedule'],
    queryFn: ({ signal }) => answer(api.GET('/datasets/{dataset}/schedule', { params: { path: { dataset: dataset() } }, signal })),
    refetchInterval: ({ state }) => (isGoing(state.data) ? 2 * SECOND : false),
  })
}

type Kept = Schemas['DatasetSchedule']['schedule']

/** "every Monday at 06:00, and when both sides have arrived"; '' where it is switched off, or there is none. */
export function whenSaid(kept: Kept): string {
  if (kept?.isOn !== true) return ''
  const times = kept.expression === null ? [] : [timesSaid(kept.expression)]
  return [...times, ...(kept.onArrival ? ['when both sides have arrived'] : [])].join(', and ')
}

/** What the station says of it. */
export function scheduleNote(found: Schemas['DatasetSchedule'] | undefined): string {
  const said = whenSaid(found?.schedule ?? null)
  return said === '' ? '' : `${found?.draws.length === 0 ? 'tallied' : 'drawn'} ${said}`
}
