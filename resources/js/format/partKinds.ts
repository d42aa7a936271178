import type { Schemas } from '@/api/client'

const KINDS: Record<Schemas['Format']['kind'], string> = {
  delimited: 'delimited text',
  'fixed-width': 'text of fixed width',
  json: 'JSON',
  'json-lines': 'JSON Lines',
  xml: 'XML',
  xlsx: 'workbook',
  ods: 'workbook',
}

/** What kind of file it is, in words. */
export const partKind = (kind: Schemas['Format']['kind']): string => KINDS[kind]
