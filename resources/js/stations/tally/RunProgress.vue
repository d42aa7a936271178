<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { count } from '@/format/counts'
import { duration } from '@/format/moments'

type Run = NonNullable<Schemas['Course']['run']>
const props = defineProps<{ run: Run; course: Schemas['Course'] }>()

const share = (rows: number, of: number): number => (of === 0 ? 1 : Math.min(1, rows / of))
const sides = computed(() => [
  { id: 'source', label: props.course.migration.sourceLabel, rows: props.run.figures.sourceRows, of: props.run.sourceDelivered },
  { id: 'target', label: props.course.migration.targetLabel, rows: props.run.figures.targetRows, of: props.run.targetDelivered },
])
const phase = computed(
  () =>
    ({
      queued: 'waits for a worker',
      reading: 'both sides are being read',
      matching: `${count(props.run.figures.slicesMatched)} of ${count(props.run.figures.slices)} slices matched`,
      merging: 'findings are being put in order',
      loading: 'findings are being stored',
    })[props.run.state as string] ?? props.run.state,
)
const CELLS = 64
const filled = computed(() => (props.run.figures.slices === 0 ? 0 : Math.floor((props.run.figures.slicesMatched / props.run.figures.slices) * CELLS)))
</script>

<template>
  <section class="run" aria-label="Progress">
    <div v-for="side in sides" :key="side.id" class="side" :class="side.id">
      <h2>
        <span :class="side.id === 'source' ? 'src' : 'tgt'">{{ side.label }}</span><span>{{ count(side.rows) }}</span>
      </h2>
      <p>of {{ count(side.of) }} rows read</p>
      <div class="lane"><u :style="{ inlineSize: `${share(side.rows, side.of) * 100}%` }" /></div>
    </div>
    <div class="middle" role="status">
      <h2>Rows that meet</h2>
      <p>
        {{ phase }}<template v-if="run.attempts > 1">, attempt {{ run.attempts }}</template>
      </p>
      <div class="slices" aria-hidden="true"><i v-for="cell in CELLS" :key="cell" :class="{ matched: cell <= filled }" /></div>
      <div class="now">
        <span
          ><b>{{ count(run.figures.agreed) }}</b
          >agreed</span
        >
        <span
          ><b>{{ count(run.figures.changed) }}</b
          >changed</span
        >
        <span
          ><b>{{ Math.floor(run.done * 100) }} %</b>done</span
        >
        <span v-if="run.secondsLeft !== null"
          ><b>{{ duration(run.secondsLeft) }}</b
          >left</span
        >
      </div>
    </div>
  </section>
</template>

<style scoped>
.run {
  padding: 18px 24px;
  display: grid;
  grid-template: 'source middle target' / 1fr 264px 1fr;
  gap: 0 22px;
  border-block-end: 1px solid var(--line);
}
.source {
  grid-area: source;
}
.target {
  grid-area: target;
}
.middle {
  grid-area: middle;
  text-align: center;
}
.side h2 {
  display: flex;
  justify-content: space-between;
}
.target h2 {
  flex-direction: row-reverse;
}
p {
  margin: 2px 0 10px;
  font-size: 13px;
  color: var(--ink-2);
}
.target p {
  text-align: end;
}
.lane {
  block-size: 26px;
  background: var(--line-2);
  display: flex;
}
.target .lane {
  justify-content: end;
}
.source u {
  background: var(--src);
}
.target u {
  background: var(--tgt);
}
.slices {
  display: grid;
  grid-template-columns: repeat(16, 1fr);
  gap: 3px;
}
.slices i {
  block-size: 12px;
  border: 1px solid var(--line);
}
.slices .matched {
  border: 0;
  background: linear-gradient(90deg, var(--src) 50%, var(--tgt) 50%);
}
.now {
  display: flex;
  justify-content: center;
  gap: 18px;
  margin-block-start: 14px;
  font-size: 13px;
  color: var(--ink-2);
}
.now b {
  display: block;
  font-size: 20px;
  font-weight: 650;
  color: var(--ink);
  line-height: 1.2;
}
@media (width < 900px) {
  .run {
    grid-template: 'source' 'target' 'middle' / 1fr;
  }
}
</style>
