import type { Schemas } from '@/api/client'

/** Where a database stands, and for how long and how many rows it may be asked. */
export const databasePlaceOf = (settings: Schemas['ConnectionSettings']) => ({
  host: settings.host ?? '',
  port: settings.port ?? null,
  driver: settings.driver ?? '',
  database: settings.database ?? '',
  user: settings.user ?? '',
  file: settings.file ?? '',
  encryption: settings.encryption ?? ('preferred' as const),
  authority: settings.authority ?? '',
})
export type DatabasePlace = ReturnType<typeof databasePlaceOf>
