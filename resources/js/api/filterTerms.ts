// The terms of a filter, made by bin/docs from app/Rulings/FindingSet/Filter.php: what there is, what only cells have, what only rows have, what is a number, what may be blank.
// prettier-ignore
export const TERMS = ['of', 'class', 'reason', 'side', 'part', 'bridged', 'total', 'group', 'moved', 'pattern', 'pair', 'cause', 'cellClass', 'ruling', 'act', 'difference', 'atLeast', 'source', 'target', 'key', 'keyColumn', 'column', 'value', 'text'] as const
// prettier-ignore
export const OF_CELLS = ['pattern', 'pair', 'cause', 'cellClass', 'source', 'target', 'difference', 'atLeast'] as const
// prettier-ignore
export const OF_ROWS = ['reason', 'side', 'part', 'bridged', 'total', 'group', 'moved', 'column', 'value'] as const
// prettier-ignore
export const NUMBERS = ['pattern', 'act', 'keyColumn', 'part', 'total', 'group'] as const
// prettier-ignore
export const MAY_BE_BLANK = ['source', 'target', 'key', 'value'] as const
