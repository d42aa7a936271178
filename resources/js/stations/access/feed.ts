import type { Schemas } from '@/api/client'

/** Of a web feed: where it stands, how its token is shown, and how one comes from a page of it to the next. */
export const feedOf = (settings: Schemas['ConnectionSettings']) => ({
  url: settings.url ?? '',
  header: settings.header ?? 'Authorization',
  prefix: settings.prefix ?? 'Bearer',
  paging: settings.paging ?? ('none' as const),
  parameter: settings.parameter ?? 'page',
  field: settings.field ?? 'next',
  records: settings.records ?? '',
  size: settings.size ?? 100,
  first: settings.first ?? 1,
})
export type Feed = ReturnType<typeof feedOf>

export const PAGINGS = {
  none: 'it comes in one answer',
  link: 'its header Link names the next',
  next: 'a field has the address of the next',
  cursor: 'a field has the mark of the next',
  page: 'by the number of the page',
  offset: 'by the number of records before',
} as const
