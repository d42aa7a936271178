import type { Schemas } from '@/api/client'

type RowClass = Schemas['RowClass'] | 'agreed'

const names: Record<RowClass, string> = {
  agreed: 'Agreed',
  changed: 'Changed',
  missing: 'Missing',
  extra: 'Extra',
  repeated: 'Repeated key',
  unkeyed: 'Without a key',
  refused: 'Refused',
}

export const className = (rowClass: RowClass): string => names[rowClass]

const decisions: Record<Schemas['Decision'], string> = { open: 'Open', expected: 'Expected', defect: 'Defect', ask: 'Ask' }

export const decisionName = (decision: Schemas['Decision']): string => decisions[decision]
