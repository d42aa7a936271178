<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import type { Schemas } from '@/api/client'
import { usePageKeys } from '@/composables/useShortcuts'
import { count } from '@/format/counts'
import { moment } from '@/format/moments'
import { figures } from '@/format/said'
import ErrorNote from '@/parts/ErrorNote.vue'
import LoadState from '@/parts/LoadState.vue'
import SaidText from '@/parts/SaidText.vue'
import StationHead from '@/parts/StationHead.vue'
import DrawEyeCheck from '@/stations/prove/DrawEyeCheck.vue'
import EyeCheckPanel from '@/stations/prove/EyeCheckPanel.vue'
import EyeCheckRow from '@/stations/prove/EyeCheckRow.vue'
import ProofPanes from '@/stations/prove/ProofPanes.vue'
import { useEyeCheck, useEyeChecks } from '@/stations/prove/useEyeChecks'

/** Rows that agree, looked at by people: what the machine takes for the same, is it? */
const props = defineProps<{ course: Schemas['Course'] }>()
const id = computed(() => props.course.tally?.id ?? 0)
const { checks, draw } = useEyeChecks(() => id.value)
const chosen = ref<number | null>(Number(useRoute().query.check ?? 0) || null)
const check = computed(() => checks.data.value?.items.find((one) => one.id === chosen.value) ?? checks.data.value?.items[0])
const place = ref(1)
watch(
  () => check.value?.id,
  () => (place.value = 1),
)
const { rows, row, say, give } = useEyeCheck(
  () => check.value?.id ?? 0,
  () => place.value,
)
const sample = computed(() => rows.data.value?.rows ?? [])
const current = computed(() => sample.value[place.value - 1])
const isDrawing = ref(false)
const panel = ref<InstanceType<typeof EyeCheckPanel> | null>(null)
const list = ref<HTMLElement | null>(null)
function go(to: number): void {
  place.value = Math.max(1, Math.min(sample.value.length, to))
}
watch(place, () => list.value?.querySelector('.on')?.scrollIntoView({ block: 'nearest' }), { flush: 'post' })
/** Whoever has said something of a row goes on with the next that they have not. */
function next(): void {
  const left = [...sample.value.slice(place.value), ...sample.value.slice(0, place.value)].find(({ mine }) => mine === null)
  go(left?.place ?? place.value + 1)
}
function said(verdict: Schemas['EyeVerdictName'], remark: string): void {
  say.mutate({ place: place.value, verdict, remark }, { onSuccess: next })
}
usePageKeys({
  n: () => go(place.value + 1),
  p: () => go(place.value - 1),
  ArrowDown: () => go(place.value + 1),
  ArrowUp: () => go(place.value - 1),
  r: () => panel.value?.decide('right'),
  w: () => panel.value?.decide('wrong'),
  u: () => panel.value?.decide('unclear'),
})
const marks: Record<Schemas['EyeVerdictName'], string> = { right: '✓', wrong: '✗', unclear: '?' }
</script>

<template>
  <main class="station">
    <StationHead heading="Is what agrees really right?" :note="course.tally ? `tally ${course.tally.number}` : ''">
      <RouterLink class="button" :to="`/datasets/${course.id}/prove`">Back to totals</RouterLink>
      <el-button v-if="course.mayRule && check" type="primary" @click="isDrawing = true">Draw another sample</el-button>
    </StationHead>
    <ErrorNote :error="draw.error.value ?? say.error.value ?? give.error.value" />
    <p v-if="id === 0" class="empty">
      Nothing can be proved before the first tally. <RouterLink :to="`/datasets/${course.id}/match`">Choose the key and tally</RouterLink>.
    </p>
    <LoadState v-else :is-loading="checks.isPending.value" :error="checks.error.value" what="The eye checks" @retry="checks.refetch()">
      <div v-if="check === undefined && checks.data.value" class="empty">
        <p>
          No rows of this tally were looked at by anybody yet. A sample of rows that agree, chosen by nobody, shows with a known confidence how few of all of
          them can be wrong: a rule that lets too much pass, or a step that hides a difference, is seen there and nowhere else.
        </p>
        <DrawEyeCheck v-if="course.mayRule" :offers="checks.data.value" :is-busy="draw.isPending.value" @draw="draw.mutate($event)" />
      </div>
      <ProofPanes v-else-if="check" :tally="id" list-label="Rows of the sample" label="The row on both sides">
        <template #list>
          <div ref="list" class="list">
            <select
              v-if="(checks.data.value?.items.length ?? 0) > 1"
              :value="check.id"
              aria-label="Which sample"
              @change="chosen = Number(($event.target as HTMLSelectElement).value)"
            >
              <option v-for="one in checks.data.value?.items" :key="one.id" :value="one.id">{{ moment(one.at) }}, {{ one.by }}</option>
            </select>
            <p v-if="rows.data.value?.isWaiting" class="quiet waiting" role="status">Both sides are being looked through for rows that agree …</p>
            <p v-else-if="rows.data.value?.problem" class="waiting" role="alert">{{ rows.data.value.problem }}</p>
            <button
              v-for="one in sample"
              :key="one.place"
              type="button"
              :class="{ on: one.place === place }"
              :aria-pressed="one.place === place"
              @click="go(one.place)"
            >
              <span class="mark" :class="one.mine?.verdict">{{ one.mine === null ? '' : marks[one.mine.verdict] }}</span>
              <span class="cell">{{ one.key }}</span>
              <span v-if="one.byRule" class="quiet rule">by a rule</span>
            </button>
          </div>
        </template>
        <p v-if="rows.data.value?.hidesKeys">
          The key is masked for you, so no single row can be looked at. Show the sensitive values first, if your role may see them.
        </p>
        <EyeCheckRow v-else-if="current" :course="course" :row="row.data.value" :error="row.error.value" :is-loading="row.isFetching.value" />
        <template #aside>
          <EyeCheckPanel
            v-if="rows.data.value"
            ref="panel"
            :key="place"
            :check="rows.data.value.check"
            :row="current"
            :place="count(place)"
            :not-drawn="checks.data.value?.notDrawn ?? 0"
            :course="course"
            :is-busy="say.isPending.value || give.isPending.value"
            @say="said"
            @give="give.mutate($event)"
          />
          <p v-if="sample.length > 0" class="quiet"><SaidText :said="figures('eye-check/rows/length', sample.length, 'row')" /> drawn</p>
        </template>
      </ProofPanes>
    </LoadState>
    <el-dialog v-if="isDrawing && checks.data.value" :model-value="true" title="Draw another sample" width="min(620px, 95vw)" @close="isDrawing = false">
      <DrawEyeCheck
        :offers="checks.data.value"
        :is-busy="draw.isPending.value"
        @draw="
          draw.mutate($event, {
            onSuccess: (drawn) => {
              chosen = drawn.id
              isDrawing = false
            },
          })
        "
      />
    </el-dialog>
  </main>
</template>

<style scoped>
.station {
  display: flex;
  flex-direction: column;
  min-block-size: 0;
}
.empty {
  padding: 16px;
  max-inline-size: 76ch;
}
.list select {
  inline-size: 100%;
  border: 0;
  border-block-end: 1px solid var(--line);
  padding: 8px 10px;
  background: var(--sheet);
}
.list button {
  display: grid;
  grid-template-columns: 18px minmax(0, 1fr) auto;
  gap: 8px;
  align-items: center;
  inline-size: 100%;
  min-block-size: 32px;
  border: 0;
  border-block-end: 1px solid var(--line-2);
  background: none;
  text-align: start;
  padding: 4px 12px;
  font-size: 12.5px;
  cursor: pointer;
}
.list .on {
  background: var(--mark);
  box-shadow: inset 3px 0 0 var(--mark-edge);
}
.list .cell {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.mark {
  font-weight: 700;
}
.mark.right {
  color: var(--pass);
}
.mark.wrong {
  color: var(--fail);
}
.rule {
  font-size: 11.5px;
}
</style>
