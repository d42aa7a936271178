<script setup lang="ts">
import { useQueryClient } from '@tanstack/vue-query'
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import type { Schemas } from '@/api/client'
import { useTally } from '@/composables/useTally'
import LoadState from '@/parts/LoadState.vue'
import PurgedNote from '@/parts/PurgedNote.vue'
import StationHead from '@/parts/StationHead.vue'
import ReviewDesk from '@/stations/review/ReviewDesk.vue'
import { useBeside } from '@/stations/review/useBeside'
import { useFilter } from '@/stations/review/useFilter'
import { firstPage } from '@/stations/review/useFindings'
import { useOrder } from '@/stations/review/useOrder'

const props = defineProps<{ course: Schemas['Course'] }>()
const route = useRoute()
const id = computed(() => Number(route.query.tally ?? props.course.tally?.id ?? 0))
// The findings are asked for together with the tally, not after it.
const list = { filter: useFilter().filter.value, beside: useBeside(() => props.course.id).value, order: useOrder().order.value }
if (id.value > 0) void useQueryClient().prefetchQuery(firstPage({ tally: id.value, ...list }))
const { data: tally, error, isPending, refetch } = useTally(id)
</script>

<template>
  <main class="station" :class="{ none: id === 0 }">
    <template v-if="id === 0">
      <StationHead heading="Nothing to review yet" />
      <p class="empty">Review shows what a tally found. <RouterLink :to="`/datasets/${course.id}/match`">Choose the key and tally</RouterLink> first.</p>
    </template>
    <LoadState v-else :is-loading="isPending" :error="error" what="The tally" @retry="refetch()">
      <PurgedNote v-if="tally?.purge" :purge="tally.purge" :tally="tally.number" :migration="course.migration.id" />
      <ReviewDesk v-else-if="tally" :key="tally.id" :tally="tally" :course="course" />
    </LoadState>
  </main>
</template>

<style scoped>
.station {
  min-block-size: 0;
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  background: var(--sheet);
}
.none {
  align-content: start;
}
.empty {
  padding: 16px;
  margin: 0;
}
</style>
