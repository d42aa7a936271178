/** An exact decimal as people write it: 68204.10 becomes 68,204.10, whatever its length; what is no number stays as it is. */
export function amount(value: string | null): string {
  if (value === null) return '–'
  const [, sign = '', whole = '', part = ''] = /^(-?)(\d+)(\.\d+)?$/.exec(value) ?? []
  return whole === '' ? value : `${sign === '' ? '' : '−'}${whole.replace(/\B(?=(\d{3})+$)/g, ',')}${part}`
}

/** Whether a difference is one: what was not computed is none. */
export const isApart = (value: string | null | undefined): boolean => /[1-9]/.test(value ?? '')

/** The same with its sign, as differences are read. */
export const signed = (value: string | null): string => (isApart(value) && value?.startsWith('-') === false ? `+${amount(value)}` : amount(value))

/** What a difference is of the number that it is a difference from: 0.25 is +25 %. */
export const relatively = (share: number): string =>
  `${share > 0 ? '+' : share < 0 ? '−' : ''}${(Math.abs(share) * 100).toLocaleString('en-GB', { maximumFractionDigits: 2 })} %`

/** No more than its place on a line is asked of it. */
export const roughly = (value: string | null): number => (value === null ? 0 : Number(value))
