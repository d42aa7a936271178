const whole = new Intl.NumberFormat('en-GB')
const short = new Intl.NumberFormat('en-US', { notation: 'compact', maximumFractionDigits: 1 })

/** In full, as lists and reports say it: 1,204,661. */
export const count = (value: number): string => whole.format(value)

/** For the rail, where a figure of millions has no room: 12.4 M from a million on. */
export const shortCount = (value: number): string => (value < 1_000_000 ? whole.format(value) : short.format(value).replace(/([A-Z])$/, ' $1'))

/** "1 row", "2 rows". */
export const counted = (value: number, one: string, many = `${one}s`): string => `${count(value)} ${value === 1 ? one : many}`

export function bytes(value: number): string {
  const units = ['bytes', 'KB', 'MB', 'GB', 'TB']
  let unit = 0
  let size = value
  while (size >= 1000 && unit < units.length - 1) {
    size /= 1000
    unit++
  }
  return unit === 0 ? counted(value, 'byte') : `${size.toFixed(1)} ${units[unit]}`
}

const words = ['No', 'One', 'Two', 'Three', 'Four', 'Five', 'Six', 'Seven', 'Eight', 'Nine', 'Ten', 'Eleven', 'Twelve']

/** Small numbers as words, to begin a heading with. */
export const inWords = (value: number): string => words[value] ?? count(value)
