import type { RouteRecordRaw } from 'vue-router'

export const routes: RouteRecordRaw[] = [
  { path: 'review', component: () => import('@/stations/review/ReviewPage.vue') },
  { path: 'near-keys', component: () => import('@/stations/review/near/NearKeysPage.vue') },
  { path: 'bridges', component: () => import('@/stations/review/near/BridgesPage.vue') },
  { path: 'near-values', component: () => import('@/stations/review/near/NearValuesPage.vue') },
  { path: 'repeats', component: () => import('@/stations/review/repeats/RepeatsPage.vue') },
  { path: 'repeats/policies', component: () => import('@/stations/review/repeats/PoliciesPage.vue') },
  { path: 'row-lists', component: () => import('@/stations/review/rows/RowListPage.vue') },
  { path: 'defects', component: () => import('@/stations/review/DefectsPage.vue') },
]
