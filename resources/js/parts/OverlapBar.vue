<script setup lang="ts">
import { computed, useId } from 'vue'
import type { Schemas } from '@/api/client'
import { count } from '@/format/counts'
import { figure, inWordsOf, joined, type Said } from '@/format/said'
import SaidText from '@/parts/SaidText.vue'

const props = withDefaults(defineProps<{ rows: Schemas['Rows']; width?: number; height?: number; captioned?: boolean }>(), {
  width: 336,
  height: 24,
  captioned: false,
})

const hatch = useId()

/** Exceptions on a square-root scale, so that three bad rows in a million are still seen; the cut mark says so. */
const SMALLEST = 5
const GROWTH = 1.5
const LARGEST_SHARE = 0.2

const figures = computed(() => ({
  missing: props.rows.source.missing,
  changed: props.rows.source.changed,
  repeated: Math.max(props.rows.source.repeated, props.rows.target.repeated),
  extra: props.rows.target.extra,
}))

const parts = computed(() => {
  const size = (rows: number): number => (rows > 0 ? Math.min(props.width * LARGEST_SHARE, Math.max(SMALLEST, Math.sqrt(rows) * GROWTH)) : 0)
  const missing = size(figures.value.missing)
  const changed = size(figures.value.changed)
  const repeated = size(figures.value.repeated)
  const extra = size(figures.value.extra)
  const exceptions = missing + changed + repeated + extra
  if (props.rows.source.agreed > 0) return { missing, agreed: props.width - exceptions, changed, repeated, extra }
  // Where nothing agrees the exceptions have the whole bar.
  const stretch = exceptions === 0 ? 0 : props.width / exceptions
  return { missing: missing * stretch, agreed: 0, changed: changed * stretch, repeated: repeated * stretch, extra: extra * stretch }
})

const half = computed(() => (props.height - 2) / 2)
const cut = computed(() => parts.value.missing + parts.value.agreed / 2)

const caption = computed<Said>(() => {
  const { missing, changed, extra } = figures.value
  const repeated = props.rows.source.repeated + props.rows.target.repeated
  const words = [
    [missing, 'missing', 'rows/source/missing'],
    [changed, 'changed', 'rows/source/changed'],
    [repeated, 'repeated', 'rows/source/repeated + rows/target/repeated'],
    [extra, 'extra', 'rows/target/extra'],
  ] as const
  const found = words.filter(([rows]) => rows > 0).map(([rows, word, name]): Said => [figure(name, rows), ` ${word}`])
  return found.length === 0 ? ['every row agrees'] : joined(found)
})
</script>

<template>
  <figure>
    <svg
      :viewBox="`0 0 ${width} ${height}`"
      :width="width"
      :height="height"
      role="img"
      :aria-label="`${count(rows.source.agreed)} agreed, ${inWordsOf(caption)}`"
    >
      <defs>
        <pattern :id="hatch" width="4" height="4" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="2" height="4" fill="var(--both)" />
        </pattern>
      </defs>
      <rect x="0" y="0" :width="parts.missing" :height="half" fill="var(--src)" />
      <g fill="var(--both-tint)">
        <rect :x="parts.missing" y="0" :width="parts.agreed" :height="half" />
        <rect :x="parts.missing" :y="half + 2" :width="parts.agreed" :height="half" />
      </g>
      <path v-if="parts.agreed > 20" :d="`M${cut - 3} ${height} L${cut + 1} 0 M${cut + 2} ${height} L${cut + 6} 0`" stroke="#fff" stroke-width="2.5" />
      <g v-if="parts.changed > 0">
        <rect :x="parts.missing + parts.agreed" y="0" :width="parts.changed" :height="half" fill="var(--src-tint)" />
        <rect :x="parts.missing + parts.agreed" :y="half + 2" :width="parts.changed" :height="half" fill="var(--tgt-tint)" />
        <path :d="`M${parts.missing + parts.agreed} 0 v${height}`" stroke="var(--ink)" />
      </g>
      <rect :x="parts.missing + parts.agreed + parts.changed" y="0" :width="parts.repeated" :height="height" :fill="`url(#${hatch})`" />
      <rect :x="parts.missing + parts.agreed + parts.changed + parts.repeated" :y="half + 2" :width="parts.extra" :height="half" fill="var(--tgt)" />
    </svg>
    <figcaption v-if="captioned" class="quiet"><SaidText :said="caption" /></figcaption>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
}
svg {
  display: block;
  max-inline-size: 100%;
}
figcaption {
  font-size: 12.5px;
}
</style>
