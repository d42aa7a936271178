import type { RouteRecordRaw } from 'vue-router'

export const routes: RouteRecordRaw[] = [
  { path: '/', component: () => import('@/stations/board/MigrationsPage.vue') },
  { path: '/migrations/:migration(\\d+)', component: () => import('@/stations/board/BoardPage.vue') },
  { path: '/migrations/:migration(\\d+)/between', component: () => import('@/stations/board/BetweenPage.vue') },
  { path: '/migrations/:migration(\\d+)/schedule', component: () => import('@/stations/board/CalendarPage.vue') },
  { path: '/for-me', component: () => import('@/stations/board/ForMePage.vue') },
]
