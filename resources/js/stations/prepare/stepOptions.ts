/** What parts of a step can be, in words; the schema of plans knows the same. */

export const actions: readonly { value: string; label: string }[] = [
  { value: 'trim', label: 'trim both ends' },
  { value: 'squeeze', label: 'one space for many' },
  { value: 'remove-invisible', label: 'remove invisible characters' },
  { value: 'upper', label: 'in capitals' },
  { value: 'lower', label: 'in small letters' },
  { value: 'compose', label: 'Unicode composed (NFC)' },
  { value: 'compatible', label: 'Unicode compatible (NFKC)' },
  { value: 'replace', label: 'replace text' },
  { value: 'replace-pattern', label: 'replace a pattern' },
  { value: 'pad-zeros', label: 'zeros before it, to a length' },
  { value: 'strip-zeros', label: 'strip leading zeros' },
]

export const tests: readonly { value: string; label: string; takes: 'nothing' | 'value' | 'values' | 'until' }[] = [
  { value: 'is-blank', label: 'is blank', takes: 'nothing' },
  { value: 'is-not-blank', label: 'is not blank', takes: 'nothing' },
  { value: 'is', label: 'is', takes: 'value' },
  { value: 'is-not', label: 'is not', takes: 'value' },
  { value: 'contains', label: 'contains', takes: 'value' },
  { value: 'begins-with', label: 'begins with', takes: 'value' },
  { value: 'ends-with', label: 'ends with', takes: 'value' },
  { value: 'matches', label: 'matches the pattern', takes: 'value' },
  { value: 'is-one-of', label: 'is one of', takes: 'values' },
  { value: 'is-not-one-of', label: 'is not one of', takes: 'values' },
  { value: 'less-than', label: 'is less than', takes: 'value' },
  { value: 'at-most', label: 'is at most', takes: 'value' },
  { value: 'more-than', label: 'is more than', takes: 'value' },
  { value: 'at-least', label: 'is at least', takes: 'value' },
  { value: 'before', label: 'is a day before', takes: 'value' },
  { value: 'on-or-before', label: 'is on or before', takes: 'value' },
  { value: 'after', label: 'is a day after', takes: 'value' },
  { value: 'on-or-after', label: 'is on or after', takes: 'value' },
  { value: 'valid-on', label: 'begins a time that includes', takes: 'until' },
]

export const totals: readonly { value: string; label: string }[] = [
  { value: 'count', label: 'number of rows, or of values of' },
  { value: 'sum', label: 'sum of' },
  { value: 'distinct', label: 'distinct values of' },
  { value: 'lowest', label: 'lowest of' },
  { value: 'highest', label: 'highest of' },
  { value: 'first', label: 'first of' },
  { value: 'last', label: 'last of' },
  { value: 'longest', label: 'longest of' },
]

/** What a survivor can hold of the rows that went into it. */
export const held: readonly { value: string; label: string }[] = totals.filter(({ value }) => value !== 'count' && value !== 'distinct')
