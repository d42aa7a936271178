import type { RouteRecordRaw } from 'vue-router'

export const routes: RouteRecordRaw[] = [
  { path: '/people', component: () => import('@/stations/access/PeoplePage.vue') },
  { path: '/connections', component: () => import('@/stations/access/ConnectionsPage.vue') },
  { path: '/work', component: () => import('@/stations/access/WorkPage.vue') },
  { path: '/account', component: () => import('@/stations/access/AccountPage.vue') },
  { path: '/migrations/:migration(\\d+)/trail', component: () => import('@/stations/access/TrailPage.vue') },
  // Whoever comes by a link is nobody yet.
  { path: '/invitation/:token', component: () => import('@/stations/access/InvitationPage.vue'), meta: { isOpen: true } },
]
