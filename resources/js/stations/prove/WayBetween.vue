<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { amount, isApart, roughly, signed } from '@/format/amounts'
import { moment } from '@/format/moments'
import { figure, figures, type Said } from '@/format/said'
import FigureValue from '@/parts/FigureValue.vue'
import SaidText from '@/parts/SaidText.vue'

/** From the total of the source to that of the target: each share a bar that begins where the one before ended, and leads to its rows. */
const props = defineProps<{
  of: Pick<Schemas['Total'], 'source' | 'target' | 'difference' | 'shares' | 'moves' | 'cancels' | 'published'>
  name: string
  publishedName: string
  where: string
  course: Schemas['Course']
  tally: number
}>()

const differs = computed(() => isApart(props.of.difference))
const bars = computed(() => {
  const ends = [roughly(props.of.source)]
  for (const share of props.of.shares) ends.push((ends.at(-1) ?? 0) + roughly(share.net))
  // The shares would be hair lines beside the totals: the way is drawn on the stretch that it moves on, with a tenth of it on either side.
  const [least, greatest] = [Math.min(...ends), Math.max(...ends)]
  const edge = (greatest - least || 1) / 10
  const at = (value: number): number => ((value - least + edge) / (greatest - least + 2 * edge)) * 100
  return props.of.shares.map((_, place) => {
    const [start, end] = [at(ends[place] ?? 0), at(ends[place + 1] ?? 0)]
    return { insetInlineStart: `${Math.min(start, end)}%`, inlineSize: `${Math.max(0.6, Math.abs(end - start))}%` }
  })
})
const side = (share: Schemas['TotalShare']): string =>
  share.name === 'missing' || share.name.endsWith(' source') ? 'src' : share.name === 'extra' || share.name.endsWith(' target') ? 'tgt' : 'both'
const words = (share: Schemas['TotalShare']): Said => [...figures(props.name, share.rows, 'row'), share.name.startsWith('pattern') ? ': ' : ' ', share.words]
const apart = (share: Schemas['TotalShare']): Said | null =>
  share.rowsUp > 0 && share.rowsDown > 0
    ? [
        figure(props.name, signed(share.up)),
        ' in ',
        ...figures(props.name, share.rowsUp, 'row'),
        ', ',
        figure(props.name, signed(share.down)),
        ' in ',
        figure(props.name, share.rowsDown),
      ]
    : null
/** The shares that lead from the source to what was published. */
const through = computed(() =>
  props.of.shares
    .filter(({ name }) => props.of.published?.through?.includes(name) === true)
    .map(({ words, name }) => (name.startsWith('pattern') ? `cells that are ${words}` : `rows ${words}`))
    .join(' and '),
)
/** What steps did to delivered rows stands where the steps are. */
const isOfSteps = ({ name }: Schemas['TotalShare']): boolean => /^(left-out|made|condensed|altered) /.test(name)
const row = (key: string) => ({ path: `/datasets/${props.course.id}/review`, query: { tally: props.tally, row: key } })
const rows = (share: Schemas['TotalShare']) => ({
  path: `/datasets/${props.course.id}/review`,
  query: { tally: props.tally, ...share.filter, ...(share.forgiven !== null && { forgiven: share.forgiven }) },
})
</script>

<template>
  <section aria-label="Which rows make the difference">
    <h2 v-if="differs">Which rows make <FigureValue :name="name" :of="signed(of.difference)" /></h2>
    <h2 v-else-if="of.cancels">The total agrees, and differences cancel out</h2>
    <h2 v-else>Both totals agree</h2>
    <p class="quiet">{{ where }}</p>
    <ol>
      <li class="end">
        <span>{{ course.migration.sourceLabel }}</span> <b class="number"><FigureValue :name="name" :of="amount(of.source)" /></b>
      </li>
      <li v-for="(share, place) in of.shares" :key="share.name">
        <RouterLink v-if="share.filter || share.forgiven !== null" :to="rows(share)" data-sentence="shares"><SaidText :said="words(share)" /></RouterLink>
        <RouterLink v-else-if="isOfSteps(share)" :to="`/datasets/${course.id}/prepare`" data-sentence="shares"><SaidText :said="words(share)" /></RouterLink>
        <span v-else><SaidText :said="words(share)" /></span>
        <b class="number"><FigureValue :name="name" :of="signed(share.net)" /></b>
        <span class="bar" aria-hidden="true"><i :class="side(share)" :style="bars[place]" /></span>
        <span v-if="share.filter === null && share.keys.length > 0" class="apart quiet" data-ordinal
          >{{ share.keys.length < share.rows ? 'such as ' : ''
          }}<template v-for="(key, nth) in share.keys" :key="key"
            >{{ nth === 0 ? '' : ' · ' }}<RouterLink :to="row(key)" class="cell">{{ key }}</RouterLink></template
          ></span
        >
        <span v-if="apart(share)" class="apart quiet"><SaidText :said="apart(share) ?? []" /></span>
        <span v-if="share.before !== null && share.before !== share.net" class="apart quiet"
          >in the tally before <span :data-figure="publishedName">{{ signed(share.before) }}</span></span
        >
      </li>
      <li class="end">
        <span>{{ course.migration.targetLabel }}</span> <b class="number"><FigureValue :name="name" :of="amount(of.target)" /></b>
      </li>
    </ol>
    <p v-if="of.shares.length > 0" class="quiet">The shares add up to the difference exactly.</p>
    <p v-if="of.published" class="published">
      <b>{{ of.published.publisher }}</b> published <span :data-figure="publishedName">{{ amount(of.published.figure) }}</span>:
      <template v-if="!isApart(of.published.fromSource)">the same as the source</template>
      <template v-else
        ><span :data-figure="publishedName">{{ signed(of.published.fromSource) }}</span> against the source</template
      >;
      <template v-if="!isApart(of.published.toTarget)">the target is the same</template>
      <template v-else
        >the target is <span :data-figure="publishedName">{{ signed(of.published.toTarget) }}</span> against it</template
      >.
      <template v-if="through !== ''">It is exactly what the source has with {{ through }}; the other shares lie between it and the target. </template>
      <span class="quiet">Entered by {{ of.published.by }}, {{ moment(of.published.at) }}.</span>
    </p>
    <p v-if="of.cancels" class="note">
      <SaidText
        :said="[
          figure(name, signed(of.moves.up)),
          ' in ',
          ...figures(name, of.moves.rowsUp, 'row'),
          ' and ',
          figure(name, signed(of.moves.down)),
          ' in ',
          figure(name, of.moves.rowsDown),
          ' cancel each other out.',
        ]"
      />
    </p>
  </section>
</template>

<style scoped>
p {
  margin: 2px 0 8px;
  font-size: 13px;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 2px 8px;
  padding: 7px 0;
  font-size: 13px;
  border-block-end: 1px solid var(--line);
  overflow-wrap: anywhere;
}
li > :first-child {
  flex: 1 1 110px;
}
.end {
  font-weight: 650;
}
b {
  font-weight: 650;
  margin-inline-start: auto;
}
.bar {
  flex: 1 0 100%;
  position: relative;
  block-size: 6px;
}
i {
  position: absolute;
  block-size: 6px;
  background: var(--ink-3);
}
i.src {
  background: var(--src);
}
i.tgt {
  background: var(--tgt);
}
.apart {
  flex: 1 0 100%;
  font-size: 12px;
}
.published {
  border-block-start: 1px solid var(--line);
  padding-block-start: 8px;
  margin-block-start: 10px;
}
.note {
  background: #fff6d8;
  border-inline-start: 3px solid #d8a200;
  padding: 8px 10px;
}
</style>
