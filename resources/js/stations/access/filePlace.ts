import type { Schemas } from '@/api/client'

/** Where files stand: in a folder of this machine, of another one that is entered by SSH, or in a bucket. */
export const filePlaceOf = (settings: Schemas['ConnectionSettings']) => ({
  host: settings.host ?? '',
  port: settings.port ?? null,
  user: settings.user ?? '',
  hostKey: settings.hostKey ?? '',
  url: settings.url ?? '',
  bucket: settings.bucket ?? '',
  region: settings.region ?? '',
  folder: settings.folder ?? '',
  marker: settings.marker ?? '',
  rest: settings.rest ?? 10,
})
export type FilePlace = ReturnType<typeof filePlaceOf>
