/** An exact decimal as people write it: 68204.10 becomes 68,204.10, whatever its length; what is no number stays as it is. */
export function amount(value: string | null): string {
  if (value === null) return '–'
  const [, sign = '', whole = '', part = ''] = /^(-?)(\d+)(\.\d+)?$/.exec(value) ?? []
  return whole === '' ? value : `${sign === '' ? '' : '−'}${whole.replace(/\B(?=(\d{3})+$)/g, ',')}${part}`
}

/** The same with its sign, as differences are read. */
export const signed = (value: string | null): string => (value !== null && /[1-9]/.test(value) && !value.startsWith('-') ? `+${amount(value)}` : amount(value))

/** No more than its place on a line is asked of it. */
export const roughly = (value: string | null): number => (value === null ? 0 : Number(value))
