// The terms of a filter, made by bin/docs from app/Rulings/FindingSet/Filter.php: what there is, what only cells have, what is a number, what may be blank.
export const TERMS = ['of', 'class', 'pattern', 'pair', 'cause', 'cellClass', 'ruling', 'act', 'source', 'target', 'key', 'keyColumn', 'text'] as const
export const OF_CELLS = ['pattern', 'pair', 'cause', 'cellClass', 'source', 'target'] as const
export const NUMBERS = ['pattern', 'act', 'keyColumn'] as const
export const MAY_BE_BLANK = ['source', 'target', 'key'] as const
