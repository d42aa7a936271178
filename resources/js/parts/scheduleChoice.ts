import type { Schemas } from '@/api/client'
import { expressionOf, timesOf, type ScheduleTimes } from '@/format/scheduleTimes'

/** When something is drawn and tallied by itself: at times, by arrival, or both; and how far apart both sides may be asked. */
export interface ScheduleChoice {
  times: ScheduleTimes
  zone: string
  onArrival: boolean
  inPlace: boolean
  mostApart: number | null
}

/** What stands there before anybody has chosen. */
export const newChoice = (): ScheduleChoice => ({
  times: timesOf('0 6 * * 1'),
  zone: Intl.DateTimeFormat().resolvedOptions().timeZone,
  onArrival: false,
  inPlace: false,
  mostApart: null,
})

/** It does nothing: no time, and no arrival. */
export const isIdle = ({ times, onArrival }: ScheduleChoice): boolean => times.often === 'never' && !onArrival

export const asked = ({ times, zone, onArrival, inPlace, mostApart }: ScheduleChoice, isOn: boolean): Schemas['ScheduleAsked'] => ({
  expression: expressionOf(times),
  zone,
  onArrival,
  inPlace,
  mostApart,
  isOn,
})
