import type { Schemas } from '@/api/client'

type Step = Schemas['Step']
type Name = keyof Step

/** A part of a step that a person fills in. */
export interface Field {
  name: Name
  label: string
  type:
    | 'columns'
    | 'column'
    | 'name'
    | 'text'
    | 'texts'
    | 'lengths'
    | 'flag'
    | 'condition'
    | 'actions'
    | 'renames'
    | 'entries'
    | 'on'
    | 'take'
    | 'totals'
    | 'holds'
    | 'order'
    | 'reading'
    | 'formula'
    | 'choice'
    | 'forgives'
  options?: readonly { value: string; label: string }[]
  hint?: string
  /** Where it takes part in some steps of the kind only. */
  isAsked?: (step: Step) => boolean
}

export interface StepKind {
  kind: string
  name: string
  group: string
  fields: readonly Field[]
  /** Whether it would change rows or values before anybody has said which: then it begins switched off, and is switched on by the first choice. */
  waits?: boolean
  /** What a new one begins with; alike are columns whose names are. */
  make: (columns: readonly string[], alike: readonly string[]) => Partial<Step>
}

const columns: Field = { name: 'columns', label: 'Columns', type: 'columns' }
const column: Field = { name: 'column', label: 'Column', type: 'column' }
const within: Field = { name: 'by', label: 'Within', type: 'columns', hint: 'all rows together' }
const reason: readonly Field[] = [
  { name: 'reason', label: 'Why they are left out', type: 'text' },
  { name: 'answersFor', label: 'Decided by', type: 'text' },
]
const forgiving: Field = { name: 'forgives', label: 'Meets although only this differs', type: 'forgives', hint: 'nothing' }
const tolerant: readonly Field[] = [
  forgiving,
  {
    name: 'several',
    label: 'Where several records are found',
    type: 'choice',
    options: [
      { value: '', label: 'the tally stops and names them' },
      { value: 'first', label: 'the first is taken' },
      { value: 'last', label: 'the last is taken' },
      { value: 'blank', label: 'nothing is taken' },
    ],
  },
]
const hasReference = (step: Step): boolean => (step.reference ?? '') !== ''
const hasNoReference = (step: Step): boolean => !hasReference(step)
const first = (names: readonly string[]): string => names[0] ?? ''
const blankIn = (names: readonly string[]) => ({ condition: { column: first(names), test: 'is-blank' } })

export const stepKinds: readonly StepKind[] = [
  {
    kind: 'keep-columns',
    name: 'Keep only some columns',
    group: 'Columns',
    fields: [{ ...columns, label: 'Columns, in this order' }],
    make: (names) => ({ columns: [...names] }),
  },
  {
    kind: 'leave-out-columns',
    waits: true,
    name: 'Leave out columns',
    group: 'Columns',
    fields: [columns],
    make: (names) => ({ columns: [names[names.length - 1] ?? ''] }),
  },
  {
    kind: 'move-columns',
    name: 'Put some columns first',
    group: 'Columns',
    fields: [columns],
    make: (names) => ({ columns: [names[names.length - 1] ?? ''] }),
  },
  {
    kind: 'rename-columns',
    name: 'Give columns other names',
    group: 'Columns',
    fields: [{ name: 'names', label: 'Column, and what it is called', type: 'renames' }],
    make: (names) => ({ names: [{ from: first(names), to: first(names) }] }),
  },
  {
    kind: 'leave-out-rows',
    waits: true,
    name: 'Leave out rows where …',
    group: 'Rows',
    fields: [{ name: 'condition', label: 'Rows where', type: 'condition' }, ...reason],
    make: blankIn,
  },
  {
    kind: 'keep-rows',
    waits: true,
    name: 'Leave out all rows but …',
    group: 'Rows',
    fields: [{ name: 'condition', label: 'Rows where', type: 'condition' }, ...reason],
    make: (names) => ({ condition: { column: first(names), test: 'is-not-blank' } }),
  },
  { kind: 'leave-out-blank-rows', name: 'Leave out blank rows', group: 'Rows', fields: reason, make: () => ({}) },
  {
    kind: 'keep-one-row',
    waits: true,
    name: 'Keep one row for each …',
    group: 'Rows',
    fields: [
      { name: 'by', label: 'For each', type: 'columns' },
      {
        name: 'which',
        label: 'The one that comes',
        type: 'choice',
        options: [
          { value: 'first', label: 'first' },
          { value: 'last', label: 'last' },
        ],
      },
      { name: 'order', label: 'Or by its value of', type: 'order' },
      ...reason,
    ],
    make: (names) => ({ by: [first(names)], which: 'first' }),
  },
  {
    kind: 'tidy-text',
    name: 'Tidy text',
    group: 'Values',
    fields: [columns, { name: 'actions', label: 'What is done, in this order', type: 'actions' }],
    make: (names) => ({ columns: [first(names)], actions: [{ action: 'trim' }] }),
  },
  {
    kind: 'read-number',
    waits: true,
    name: 'Read a column as a number',
    group: 'Values',
    fields: [columns, { name: 'reading', label: 'number', type: 'reading' }],
    make: (names) => ({ columns: [first(names)] }),
  },
  {
    kind: 'read-date',
    waits: true,
    name: 'Read a column as a date',
    group: 'Values',
    fields: [columns, { name: 'reading', label: 'date', type: 'reading' }],
    make: (names) => ({ columns: [first(names)] }),
  },
  {
    kind: 'read-yes-no',
    waits: true,
    name: 'Read a column as yes or no',
    group: 'Values',
    fields: [columns, { name: 'reading', label: 'yes-no', type: 'reading' }],
    make: (names) => ({ columns: [first(names)] }),
  },
  {
    kind: 'fill-blanks',
    waits: true,
    name: 'Fill blanks',
    group: 'Values',
    fields: [columns, { name: 'value', label: 'With', type: 'text', hint: 'the value above' }],
    make: (names) => ({ columns: [first(names)] }),
  },
  {
    kind: 'crosswalk',
    name: 'Translate values by a crosswalk',
    group: 'Values',
    fields: [
      column,
      { name: 'entries', label: 'Value, and what it becomes', type: 'entries' },
      { name: 'blankOthers', label: 'values without an entry become blank', type: 'flag' },
    ],
    make: (names) => ({ column: first(names), entries: [] }),
  },
  {
    kind: 'compute-column',
    name: 'Compute a column',
    group: 'Values',
    fields: [
      { name: 'into', label: 'Column', type: 'name' },
      { name: 'formula', label: 'Is', type: 'formula' },
      { name: 'takesBlanks', label: 'blank cells go into the formula', type: 'flag' },
    ],
    make: () => ({ into: 'computed', formula: '1 + 1' }),
  },
  {
    kind: 'split-column',
    waits: true,
    name: 'Divide a column',
    group: 'Columns and rows',
    fields: [
      column,
      { name: 'separator', label: 'At', type: 'text', hint: 'no separator' },
      { name: 'lengths', label: 'Or after so many characters', type: 'lengths' },
      { name: 'pattern', label: 'Or by the groups of a pattern', type: 'text' },
      { name: 'into', label: 'Into', type: 'texts' },
      { name: 'keep', label: 'the column stays', type: 'flag' },
    ],
    make: (names) => ({ column: first(names), separator: ' ', into: [`${first(names)}_1`, `${first(names)}_2`] }),
  },
  {
    kind: 'join-columns',
    waits: true,
    name: 'Put columns together',
    group: 'Columns and rows',
    fields: [
      columns,
      { name: 'with', label: 'With between them', type: 'text' },
      { name: 'into', label: 'Into', type: 'name' },
      { name: 'skipBlanks', label: 'blank cells are passed over', type: 'flag' },
      { name: 'keep', label: 'the columns stay', type: 'flag' },
    ],
    make: (names) => ({ columns: names.slice(0, 2), with: ' ', into: 'joined' }),
  },
  {
    kind: 'columns-into-rows',
    name: 'Turn columns into rows',
    group: 'Columns and rows',
    fields: [
      { ...columns, label: 'Columns that become rows' },
      { name: 'namesInto', label: 'Their names go to', type: 'name' },
      { name: 'valuesInto', label: 'Their values go to', type: 'name' },
      { name: 'keepBlanks', label: 'blank values become rows too', type: 'flag' },
    ],
    make: (names, alike) => ({ columns: alike.length > 0 ? [...alike] : names.slice(-2), namesInto: 'name', valuesInto: 'value', keepBlanks: true }),
  },
  {
    kind: 'rows-into-columns',
    waits: true,
    name: 'Turn rows into columns',
    group: 'Columns and rows',
    fields: [
      { name: 'namesFrom', label: 'Names come from', type: 'column' },
      { name: 'valuesFrom', label: 'Values come from', type: 'column' },
      { name: 'into', label: 'Names that become columns', type: 'texts' },
    ],
    make: (names) => ({ namesFrom: names[names.length - 2] ?? '', valuesFrom: names[names.length - 1] ?? '', into: ['name'] }),
  },
  {
    kind: 'group-rows',
    waits: true,
    name: 'One row for each …, with totals',
    group: 'Columns and rows',
    fields: [
      { name: 'by', label: 'One row for each', type: 'columns' },
      { name: 'totals', label: 'With', type: 'totals' },
    ],
    make: (names) => ({ by: [first(names)], totals: [{ total: 'count', into: 'rows' }] }),
  },
  {
    kind: 'survivors',
    waits: true,
    name: 'Put rows together that the migration put together',
    group: 'Columns and rows',
    fields: [
      { name: 'reference', label: 'Which went into which says the dataset', type: 'text', hint: 'its name; none: the entries below' },
      { name: 'on', label: 'Column of the key here, and of the old key there', type: 'on', isAsked: hasReference },
      { name: 'take', label: "Column of the survivor's key there, and of the key here", type: 'take', isAsked: hasReference },
      { ...column, label: 'Column of the key', isAsked: hasNoReference },
      { name: 'entries', label: 'Key, and the key of its survivor', type: 'entries', isAsked: hasNoReference },
      { name: 'holds', label: 'The survivor keeps its own values, but holds', type: 'holds' },
      forgiving,
    ],
    make: (names) => ({ column: first(names), entries: [], holds: [] }),
  },
  {
    kind: 'number-rows',
    name: 'Number rows, or rank them',
    group: 'Columns and rows',
    fields: [
      { name: 'into', label: 'Number goes to', type: 'name' },
      within,
      { name: 'order', label: 'By the value of', type: 'order' },
      { name: 'rank', label: 'equal values have one number', type: 'flag' },
    ],
    make: () => ({ into: 'number', by: [] }),
  },
  {
    kind: 'look-up',
    waits: true,
    name: 'Look up values in a reference',
    group: 'References',
    fields: [
      { name: 'reference', label: 'In the dataset', type: 'text', hint: 'its name, such as Basins' },
      { name: 'on', label: 'Column here, and its column there', type: 'on' },
      { name: 'take', label: 'Column there, and what it is called here', type: 'take' },
      { name: 'outcome', label: 'Column that says what was found', type: 'text', hint: 'none; no record and a blank one look alike' },
      ...tolerant,
    ],
    make: (names) => ({ reference: 'Basins', on: [{ column: first(names), reference: first(names) }], take: [{ reference: 'name', into: 'name' }] }),
  },
  {
    kind: 'as-matched',
    waits: true,
    name: 'Put the number that another dataset matched',
    group: 'References',
    fields: [
      { name: 'reference', label: 'As matched by the dataset', type: 'text', hint: 'its name, such as Holders; its newest tally is used' },
      { name: 'on', label: 'Column here, and its column in the source there', type: 'on' },
      { name: 'take', label: 'Column in the target there, and where it goes here', type: 'take' },
    ],
    make: (names) => ({
      reference: 'Holders',
      on: [{ column: first(names), reference: first(names) }],
      take: [{ reference: 'number', into: first(names) }],
    }),
  },
  {
    kind: 'look-up-band',
    waits: true,
    name: 'Look up a band in a reference',
    group: 'References',
    fields: [
      { name: 'reference', label: 'In the dataset', type: 'text', hint: 'its name, such as Length bands' },
      column,
      { name: 'from', label: 'A band begins there with', type: 'text' },
      { name: 'until', label: 'And ends with', type: 'text', hint: 'where the next begins' },
      { name: 'on', label: 'Within: column here, and its column there', type: 'on' },
      { name: 'take', label: 'Column there, and what it is called here', type: 'take' },
      forgiving,
    ],
    make: (names) => ({ reference: 'Length bands', column: first(names), from: 'from', take: [{ reference: 'band', into: 'band' }] }),
  },
  {
    kind: 'bring-in-records',
    waits: true,
    name: 'One row for each record of a reference',
    group: 'References',
    fields: [
      { name: 'reference', label: 'Of the dataset', type: 'text', hint: 'its name; a row for each record that is found' },
      { name: 'on', label: 'Column here, and its column there', type: 'on' },
      { name: 'take', label: 'Column there, and what it is called here', type: 'take' },
      forgiving,
      {
        name: 'without',
        label: 'Rows that no record is found for',
        type: 'choice',
        options: [
          { value: '', label: 'stay, with blank cells' },
          { value: 'leave-out', label: 'are left out' },
          { value: 'list', label: 'stay, and are listed by their keys' },
        ],
      },
      ...reason,
    ],
    make: (names) => ({ reference: 'Basins', on: [{ column: first(names), reference: first(names) }], take: [{ reference: 'name', into: 'name' }] }),
  },
]

export const kindOf = (kind: string): StepKind | undefined => stepKinds.find((known) => known.kind === kind)

export const groups = [...new Set(stepKinds.map(({ group }) => group))]
