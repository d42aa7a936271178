<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { count } from '@/format/counts'
import { candidatesAt, candidatesSentence, type Found, scoreOf } from '@/stations/review/near/nearKeys'

/** How many candidates each score has, and the score from which on they count. */
const props = defineProps<{ found: Found; cut: number }>()
const emit = defineEmits<{ cut: [score: number] }>()

const HEIGHT = 64
/** While the handle is moved only the sentence follows; the list follows when it is let go. */
const moved = ref(props.cut)
watch(
  () => props.cut,
  (cut) => (moved.value = cut),
)
const most = computed(() => Math.max(1, ...props.found.curve.candidates))
const bars = computed(() =>
  props.found.curve.candidates.map((candidates, step) => ({
    step,
    // What is rare must be seen beside what is common.
    height: candidates === 0 ? 0 : Math.max(2, HEIGHT * Math.sqrt(candidates / most.value)),
    isAbove: scoreOf(step) >= moved.value - 1e-9,
    says: `${scoreOf(step).toFixed(2)}: ${count(candidates)}`,
  })),
)
const sentence = computed(() => candidatesSentence(candidatesAt(props.found.curve, props.found.looked.source, moved.value)))
</script>

<template>
  <section aria-label="Candidates by score">
    <h3>Candidates by score</h3>
    <svg :viewBox="`0 0 255 ${HEIGHT}`" preserveAspectRatio="none" aria-hidden="true">
      <rect v-for="bar in bars" :key="bar.step" :x="bar.step * 5" :y="HEIGHT - bar.height" width="4" :height="bar.height" :class="{ above: bar.isAbove }">
        <title>{{ bar.says }}</title>
      </rect>
    </svg>
    <input
      type="range"
      min="0.5"
      max="1"
      step="0.01"
      :value="moved"
      aria-label="Score from which on candidates count"
      :aria-valuetext="`${moved.toFixed(2)}. ${sentence}`"
      @input="moved = Number(($event.target as HTMLInputElement).value)"
      @change="emit('cut', moved)"
    />
    <p>
      From <b data-ordinal>{{ moved.toFixed(2) }}</b> on: {{ sentence }}
      <button v-if="Math.abs(cut - found.cut) > 0.001" type="button" class="plain as-link" @click="emit('cut', found.cut)">
        As proposed, <span data-ordinal>{{ found.cut.toFixed(2) }}</span>
      </button>
    </p>
    <p v-if="found.approximate > 0" class="quiet">
      {{ count(found.approximate) }} rows hang together with so many others that their pairs are proposed by an auction, which may miss the best by a little.
    </p>
  </section>
</template>

<style scoped>
section {
  padding: 8px 14px;
  border-block-end: 1px solid var(--line);
  font-size: 13px;
}
h3 {
  margin: 0 0 4px;
  font-size: 12px;
  color: var(--ink-2);
}
svg {
  display: block;
  inline-size: 100%;
  block-size: 64px;
  border-block-end: 1px solid var(--line);
}
rect {
  fill: var(--line);
}
rect.above {
  fill: var(--ink);
}
input {
  inline-size: 100%;
  min-block-size: 24px;
  accent-color: var(--ink);
  margin: 0;
}
p {
  margin: 2px 0 0;
}
</style>
