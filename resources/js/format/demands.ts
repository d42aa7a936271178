import type { Schemas } from '@/api/client'

/** What a value is that does not meet a part of a demand. */
export const UNMET: Record<Schemas['CheckedDemand']['demand'], string> = {
  required: 'blank, and a value is required',
  mostCharacters: 'longer than the characters allowed',
  mostBytes: 'longer than the bytes allowed',
  allowed: 'not among the values allowed',
  digits: 'with too many digits before the point',
  decimals: 'with too many decimals',
  number: 'no number',
}
