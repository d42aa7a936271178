const time = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit' })
const day = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short' })
const dayAndYear = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', year: 'numeric' })

const sameDay = (a: Date, b: Date): boolean => a.toDateString() === b.toDateString()

/** "today 09:12", "24 Nov 16:50", "24 Nov 2025 16:50". */
export function moment(iso: string, now = new Date()): string {
  const at = new Date(iso)
  if (sameDay(at, now)) {
    return `today ${time.format(at)}`
  }
  const date = at.getFullYear() === now.getFullYear() ? day.format(at) : dayAndYear.format(at)
  return `${date} ${time.format(at)}`
}

/** "9 s", "2 min", "1 h 20 min". */
export function duration(seconds: number): string {
  if (seconds < 90) {
    return `${Math.round(seconds)} s`
  }
  const minutes = Math.round(seconds / 60)
  return minutes < 60 ? `${minutes} min` : `${Math.floor(minutes / 60)} h ${minutes % 60} min`
}
