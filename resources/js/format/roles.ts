import type { Schemas } from '@/api/client'

export type Role = NonNullable<Schemas['Invitation']['role']>

export const ROLES: readonly Role[] = ['viewer', 'analyst', 'test-manager', 'data-owner', 'auditor']
export const roleName = (role: Role): string => role.replace('-', ' ')
