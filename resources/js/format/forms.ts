import type { Schemas } from '@/api/client'

type Reading = Schemas['Reading']

const MONTHS = ['January', 'February', 'March', 'April', 'May', 'June', 'July', 'August', 'September', 'October', 'November', 'December'] as const
const pad = (value: number, digits = 2): string => String(value).padStart(digits, '0')

/** What each field of a date form is on a given day; in the order in which longer ones are looked for first. */
const fields: readonly { letters: string; part: string; of: (day: Date) => string }[] = [
  { letters: 'yyyy', part: 'year', of: (day) => pad(day.getFullYear(), 4) },
  { letters: 'yy', part: 'year', of: (day) => pad(day.getFullYear() % 100) },
  { letters: 'MMM', part: 'month', of: (day) => (MONTHS[day.getMonth()] ?? '').slice(0, 3) },
  { letters: 'MM', part: 'month', of: (day) => pad(day.getMonth() + 1) },
  { letters: 'M', part: 'month', of: (day) => String(day.getMonth() + 1) },
  { letters: 'dd', part: 'day', of: (day) => pad(day.getDate()) },
  { letters: 'd', part: 'day', of: (day) => String(day.getDate()) },
  { letters: 'HH', part: 'hour', of: (day) => pad(day.getHours()) },
  { letters: 'H', part: 'hour', of: (day) => String(day.getHours()) },
  { letters: 'hh', part: 'hour', of: (day) => pad(day.getHours() % 12 || 12) },
  { letters: 'h', part: 'hour', of: (day) => String(day.getHours() % 12 || 12) },
  { letters: 'mm', part: 'minute', of: (day) => pad(day.getMinutes()) },
  { letters: 'SSS', part: 'fraction', of: () => '000' },
  { letters: 'ss', part: 'second', of: (day) => pad(day.getSeconds()) },
  { letters: 'a', part: 'am or pm', of: (day) => (day.getHours() < 12 ? 'am' : 'pm') },
  { letters: 'XXX', part: 'offset', of: () => '+01:00' },
]

export const DAY_NUMBERS = [
  { form: 'day-number-1900', name: 'number of days since 1900' },
  { form: 'day-number-1904', name: 'number of days since 1904' },
] as const

const replaced = (form: string, by: (field: (typeof fields)[number]) => string): string =>
  form.replaceAll(/'([^']*)'|([A-Za-z])\2*/g, (letters, quoted: string | undefined) => {
    if (quoted !== undefined) return quoted
    const field = fields.find((known) => known.letters === letters)
    return field === undefined ? letters : by(field)
  })

/** A day as it is written in a form; the number of a day as a workbook has it. */
export function writtenIn(form: string, day: Date): string {
  const days = Math.round((Date.UTC(day.getFullYear(), day.getMonth(), day.getDate()) - Date.UTC(1899, 11, 30)) / 86_400_000)
  if (form === 'day-number-1900') return String(days)
  if (form === 'day-number-1904') return String(days - 1462)
  return replaced(form, (field) => field.of(day))
}

/** Its parts in their order, such as "day/month/year". */
export function partsOf(form: string): string {
  const number = DAY_NUMBERS.find((known) => known.form === form)
  if (number !== undefined) return number.name
  const [date = form] = form.split(/(?:'T'|[ ,])*[Hh]{1,2}:mm/)
  const parts = /[^A-Za-z]/.test(date) ? replaced(date, (field) => field.part) : replaced(date, (field) => `${field.part} `).trim()
  return parts + (form.includes('mm') ? ' with a time' : '')
}

/** As a form is shown to a person: today's date in it, and its parts. */
export const dateFormName = (form: string, today = new Date()): string => `${writtenIn(form, today)} (${partsOf(form)})`

const marks: Readonly<Record<string, string>> = { ',': 'a comma', '.': 'a point', ' ': 'a space', "'": 'an apostrophe' }

/** What is declared of how values are written, in words. */
export function declaredInWords(declared: Reading, today = new Date()): string[] {
  const { blankTokens = [], decimalMark, groupMark, currency, percent, negatives, dateForms = [], twoDigitYearsFrom: from, yes = [], no = [] } = declared
  return [
    blankTokens.length > 0 ? `${blankTokens.map((token) => `"${token}"`).join(', ')} means blank` : '',
    decimalMark === undefined ? '' : `decimals after ${marks[decimalMark] ?? ''}`,
    groupMark === undefined || groupMark === '' ? '' : `${marks[groupMark] ?? ''} between thousands`,
    currency === undefined ? '' : `amounts in ${currency}`,
    percent === undefined ? '' : percent === 'share' ? '5 % is 0.05' : '5 % is 5',
    negatives === 'parentheses' ? 'negative in parentheses' : negatives === 'minus-behind' ? 'the minus stands behind' : '',
    dateForms.length === 0 ? '' : dateForms.map((form) => dateFormName(form, today)).join(' or '),
    from === undefined ? '' : `years ${from} to ${from + 99}`,
    yes.length === 0 ? '' : `${yes.join(', ')} is yes`,
    no.length === 0 ? '' : `${no.join(', ')} is no`,
  ].filter((part) => part !== '')
}

/** A date form from its parts: nobody has to know its letters. */
export interface DateParts {
  order: 'day-month-year' | 'month-day-year' | 'year-month-day'
  between: '/' | '.' | '-' | ' ' | ''
  month: 'number' | 'name'
  year: 4 | 2
  digits: 'two' | 'as needed'
  time: '' | 'HH:mm' | 'HH:mm:ss' | 'h:mm a'
}

export function dateFormOf({ order, between, month, year, digits, time }: DateParts): string {
  const written = {
    day: digits === 'two' ? 'dd' : 'd',
    month: month === 'name' ? 'MMM' : digits === 'two' ? 'MM' : 'M',
    year: year === 4 ? 'yyyy' : 'yy',
  }
  const parts = order.split('-') as (keyof typeof written)[]
  return parts.map((part) => written[part]).join(between) + (time === '' ? '' : ` ${time}`)
}

export const hasShortYears = (forms: readonly string[]): boolean => forms.some((form) => /(?<!y)yy(?!y)/.test(form))

/** The common ones, the likelier first; those that stand in the data are offered before them. */
export const commonDateForms = ['yyyy-MM-dd', 'dd/MM/yyyy', 'MM/dd/yyyy', 'dd.MM.yyyy', 'd MMM yyyy', 'MMM d, yyyy', 'yyyyMMdd', 'dd/MM/yyyy HH:mm'] as const
