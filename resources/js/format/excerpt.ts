import type { Stretch } from '@/format/difference'

/** What is equal on both sides is only shown near what differs; what differs is shown as far as it can be read at a glance. */
const NEAR = 80
const MOST = 600

/** Whether a value is so long that it is shortened. */
export const isLong = (value: string | null): boolean => value !== null && value.length > MOST

/** The stretches of a long value, with what nobody needs to read for the difference left out. */
export function excerpt(stretches: readonly Stretch[]): Stretch[] {
  const length = stretches.reduce((sum, stretch) => sum + stretch.text.length, 0)
  if (length <= MOST) return [...stretches]
  return stretches.map((stretch, place) => {
    const text = Array.from(stretch.text)
    if (stretch.differs || stretches.length === 1) return text.length <= MOST ? stretch : { ...stretch, text: `${text.slice(0, MOST).join('')}…` }
    const before = place === 0 ? '' : text.slice(0, NEAR).join('')
    const after = place === stretches.length - 1 ? '' : text.slice(-NEAR).join('')
    return text.length <= NEAR * 2 ? stretch : { ...stretch, text: `${before}…${after}` }
  })
}
