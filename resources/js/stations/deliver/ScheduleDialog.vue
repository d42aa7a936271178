<script setup lang="ts">
import { useMutation, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { answer, api, type Schemas } from '@/api/client'
import { moment } from '@/format/moments'
import { DAYS, expressionOf, OFTEN, timesOf, timesSaid, type Often } from '@/format/scheduleTimes'
import DrawLog from '@/parts/DrawLog.vue'
import ErrorNote from '@/parts/ErrorNote.vue'
import LoadState from '@/parts/LoadState.vue'

/** When both sides are drawn from their databases and tallied by themselves, and what became of it. */
const props = defineProps<{ course: Schemas['Course'] }>()
const emit = defineEmits<{ close: [] }>()
const SECOND = 1000
const key = ['dataset', props.course.id, 'schedule']
const path = { params: { path: { dataset: props.course.id } } }
const isGoing = (found: Schemas['DatasetSchedule'] | undefined): boolean =>
  found?.past.some(({ state }) => ['drawing', 'reading', 'tallying'].includes(state)) ?? false
const { data, error, isPending, refetch } = useQuery({
  queryKey: key,
  queryFn: ({ signal }) => answer(api.GET('/datasets/{dataset}/schedule', { ...path, signal })),
  refetchInterval: ({ state }) => (isGoing(state.data) ? 2 * SECOND : false),
})
const queries = useQueryClient()
watch(
  () => isGoing(data.value),
  // What was drawn is delivered, and tallied: the station shows it.
  () => void queries.invalidateQueries({ queryKey: ['dataset', props.course.id] }),
)
const times = ref(timesOf('0 6 * * 1'))
const zone = ref(Intl.DateTimeFormat().resolvedOptions().timeZone)
const zones = Intl.supportedValuesOf('timeZone')
const kept = computed(() => data.value?.schedule ?? null)
watch(kept, (schedule) => {
  if (schedule === null) return
  times.value = timesOf(schedule.expression)
  zone.value = schedule.zone
})
const keep = useMutation({
  mutationFn: (isOn: boolean) =>
    answer(api.PUT('/datasets/{dataset}/schedule', { ...path, body: { expression: expressionOf(times.value), zone: zone.value, isOn } })),
  onSuccess: (found) => queries.setQueryData(key, found),
})
const draw = useMutation({
  mutationFn: () => answer(api.POST('/datasets/{dataset}/draws', path)),
  onSuccess: (found) => queries.setQueryData(key, found),
})
const label = (side: 'source' | 'target'): string => (side === 'source' ? props.course.migration.sourceLabel : props.course.migration.targetLabel).toLowerCase()
/** What is drawn, and what stays as it was delivered. */
const said = computed(() =>
  (['source', 'target'] as const)
    .map((side) => {
      const found = data.value?.draws.find((one) => one.side === side)
      return found === undefined ? `the ${label(side)} stays as it was delivered` : `the ${label(side)} from ${found.sources.join(', ')}`
    })
    .join('; '),
)
</script>

<template>
  <el-dialog :model-value="true" title="Draw both sides by schedule" width="min(720px, 95vw)" @close="emit('close')">
    <LoadState :is-loading="isPending" :error="error" what="The schedule" @retry="refetch()">
      <div v-if="data" class="all">
        <p v-if="data.draws.length === 0">
          Neither side was drawn from a database yet. Take the rows of a query or a table once; from then on they can be drawn again by themselves.
        </p>
        <template v-else>
          <p>Drawn is what was asked last: {{ said }}. Then both are tallied.</p>
          <p v-if="kept" role="status">
            <b>{{ kept.isOn ? timesSaid(kept.expression) : 'Switched off' }}</b>, {{ kept.zone }}, in the name of {{ kept.by }}.
            <span v-if="kept.next.length > 0" class="quiet">Next: {{ kept.next.map((at) => moment(at)).join(', ') }}.</span>
          </p>
          <form v-if="course.mayWork" class="times" @submit.prevent="keep.mutate(true)">
            <label class="field"
              >How often
              <el-select v-model="times.often" aria-label="How often">
                <el-option v-for="(name, often) in OFTEN" :key="often" :value="often as Often" :label="name" />
              </el-select>
            </label>
            <label v-if="times.often === 'week'" class="field"
              >On
              <el-select v-model="times.day" aria-label="Day of the week">
                <el-option v-for="(name, day) in DAYS" :key="day" :value="day" :label="name" />
              </el-select>
            </label>
            <label v-if="times.often === 'month'" class="field"
              >On day <el-input-number v-model="times.date" :min="1" :max="31" aria-label="Day of the month"
            /></label>
            <label v-if="times.often === 'other'" class="field wide"
              >Minute, hour, day of the month, month, day of the week (cron)
              <el-input v-model="times.expression" aria-label="Times as cron says them" placeholder="0 6 * * 1" />
            </label>
            <label v-else class="field">At <el-input v-model="times.at" type="time" aria-label="Time of the day" /></label>
            <label class="field"
              >In the zone
              <el-select v-model="zone" filterable aria-label="Zone">
                <el-option v-for="name in zones" :key="name" :value="name" :label="name" />
              </el-select>
            </label>
            <span class="buttons">
              <el-button type="primary" native-type="submit" :loading="keep.isPending.value">{{
                kept?.isOn ? 'Keep these times' : 'Draw by these times'
              }}</el-button>
              <el-button v-if="kept?.isOn" @click="keep.mutate(false)">Switch it off</el-button>
              <el-button :loading="draw.isPending.value" :disabled="isGoing(data)" @click="draw.mutate()">Draw both now</el-button>
            </span>
          </form>
        </template>
        <ErrorNote :error="keep.error.value ?? draw.error.value" />
        <template v-if="data.past.length > 0">
          <h3>What was drawn</h3>
          <DrawLog :draws="data.past" />
        </template>
      </div>
    </LoadState>
  </el-dialog>
</template>

<style scoped>
.all {
  display: grid;
  gap: 10px;
}
p,
h3 {
  margin: 0;
}
h3 {
  font-size: 14px;
}
.times {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 14px;
  align-items: end;
}
.field {
  display: grid;
  font-size: 12.5px;
  color: var(--ink-2);
  inline-size: 170px;
}
.wide {
  inline-size: 360px;
}
.buttons {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
</style>
