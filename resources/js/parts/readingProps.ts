import type { Schemas } from '@/api/client'

/** What a part is told that asks in which forms values are written. */
export interface ReadingProps {
  label: string
  kind: Schemas['Kind'] | 'any'
  reading: Schemas['Reading']
  /** what holds where nothing is declared here */
  inherited?: Schemas['Reading']
  /** date forms that stand in the data */
  found?: readonly string[]
  mayWork: boolean
}
