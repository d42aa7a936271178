// Our own words, made by bin/docs from docs/words.md.
// prettier-ignore
export const OWN_WORDS: ReadonlyMap<string, string> = new Map([
  ['delivery', 'what one side handed over at one time, kept byte for byte: one or more parts'],
  ['part', 'one file, or the rows of one query, of a delivery'],
  ['step', 'one change of the rows of a side; it never touches the delivery'],
  ['reference', 'another dataset that values are looked up from'],
  ['plan', 'the versioned document of a dataset: steps, key, pairs, rules, repeats policy'],
  ['column pair', 'a source column and the target column that it must equal'],
  ['crosswalk', 'a table of source value to target value for a pair'],
  ['guess', 'a form, a kind or a token that is proposed for a pair, with what it would settle'],
  ['tally', 'the result of a run, entered once; it never changes'],
  ['finding', 'one row or one cell that needs an explanation'],
  ['pattern', 'all cells with the same pair, cell class, cause and facts'],
  ['family', 'the patterns of one column and kind of cell'],
  ['act of ruling', 'what somebody decided on findings, at a time; it can be undone by another act'],
  ['agreement', 'values right of all that have a value on either side; the one percentage that may stand alone'],
  ['control total', 'a figure that both sides must have in common: rows, a sum, blanks, distinct values, an extreme; overall and by group'],
  ['share', 'the part of a difference between two totals that one class of rows, or one pattern, makes up'],
  ['limit', 'the worst value of a figure that is acceptable; to what the figure is narrowed (a column pair, a part, a step, a pattern, a total)'],
  ['waiver', 'that the data owner takes a figure as it is, until a day, and no worse one'],
])
