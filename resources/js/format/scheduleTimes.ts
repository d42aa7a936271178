/** How often something is done, as a person chooses it; any other times are said as cron says them. */
export type Often = 'day' | 'weekday' | 'week' | 'month' | 'hour' | 'other' | 'never'

export interface ScheduleTimes {
  often: Often
  /** of the day, such as 06:00; of the hour its minutes count alone */
  at: string
  /** of the week, 0 for Sunday */
  day: number
  /** of the month, from 1 */
  date: number
  /** of cron, where it is none of these */
  expression: string
}

export const DAYS = ['Sunday', 'Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday'] as const
export const OFTEN: Record<Often, string> = {
  day: 'every day',
  weekday: 'Monday to Friday',
  week: 'every week',
  month: 'every month',
  hour: 'every hour',
  other: 'at other times',
  never: 'at no time of its own',
}

const two = (number: number): string => String(number).padStart(2, '0')

/** The five fields of cron: minute, hour, day of the month, month, day of the week; null for no time. */
export function expressionOf({ often, at, day, date, expression }: ScheduleTimes): string | null {
  const [hour = 0, minute = 0] = at.split(':').map(Number)
  const ofDay: Record<Exclude<Often, 'hour' | 'other' | 'never'>, string> = { day: '* * *', weekday: '* * 1-5', week: `* * ${day}`, month: `${date} * *` }
  if (often === 'never') return null
  if (often === 'other') return expression.trim()
  return often === 'hour' ? `${minute} * * * *` : `${minute} ${hour} ${ofDay[often]}`
}

export function timesOf(expression: string | null): ScheduleTimes {
  const times: ScheduleTimes = { often: 'other', at: '06:00', day: 1, date: 1, expression: expression ?? '0 6 * * 1' }
  if (expression === null) return { ...times, often: 'never' }
  const [minute = '', hour = '', date = '', month = '', day = ''] = expression.split(' ')
  const isNumber = (field: string): boolean => /^\d+$/.test(field)
  if (!isNumber(minute) || month !== '*') return times
  if (hour === '*' && date === '*' && day === '*') return { ...times, often: 'hour', at: `00:${two(Number(minute))}` }
  if (!isNumber(hour)) return times
  const at = `${two(Number(hour))}:${two(Number(minute))}`
  if (date === '*' && day === '*') return { ...times, often: 'day', at }
  if (date === '*' && day === '1-5') return { ...times, often: 'weekday', at }
  if (date === '*' && /^[0-6]$/.test(day)) return { ...times, often: 'week', at, day: Number(day) }
  if (isNumber(date) && day === '*') return { ...times, often: 'month', at, date: Number(date) }
  return times
}

/** "every week, on Monday at 06:00". */
export function timesSaid(expression: string | null): string {
  const { often, at, day, date } = timesOf(expression)
  const said: Record<Often, string> = {
    day: `every day at ${at}`,
    weekday: `Monday to Friday at ${at}`,
    week: `every ${DAYS[day] ?? ''} at ${at}`,
    month: `on day ${date} of every month at ${at}`,
    hour: `every hour, at minute ${Number(at.slice(3))}`,
    other: `at ${expression ?? ''} (cron)`,
    never: 'at no time of its own',
  }
  return said[often]
}
