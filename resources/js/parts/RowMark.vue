<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '@/api/client'
import { className } from '@/format/classes'

const props = defineProps<{
  rowClass: Schemas['RowClass'] | 'agreed'
  /** which side an unpaired row came from, where its class does not say it */
  side?: 'source' | 'target' | null
  /** set where the word stands beside the mark already */
  silent?: boolean
}>()

const source = computed(() => props.rowClass !== 'extra' && !(props.side === 'target' && props.rowClass !== 'changed'))
const target = computed(() => props.rowClass !== 'missing' && !(props.side === 'source' && props.rowClass !== 'changed'))
</script>

<template>
  <span class="mark" :class="rowClass" :role="silent ? undefined : 'img'" :aria-label="silent ? undefined : className(rowClass)" :aria-hidden="silent">
    <i class="left" :class="{ filled: source }" /><i class="right" :class="{ filled: target }" />
  </span>
</template>

<style scoped>
.mark {
  display: inline-flex;
  gap: 1px;
  inline-size: 23px;
  block-size: 14px;
  vertical-align: -1px;
  flex: none;
}
i {
  inline-size: 11px;
  block-size: 13px;
  border: 1.5px dotted;
}
.left {
  border-color: var(--src);
  border-radius: 3px 0 0 3px;
}
.right {
  border-color: var(--tgt);
  border-radius: 0 3px 3px 0;
}
.filled {
  border-style: solid;
}
.left.filled {
  background: var(--src);
}
.right.filled {
  background: var(--tgt);
}
.mark.agreed i {
  border-style: solid;
  border-color: var(--both);
  background: var(--both);
}
.changed .right {
  transform: translateY(4px);
}
.repeated {
  filter: drop-shadow(2px 2px 0 #fff) drop-shadow(2px 2px 0 var(--ink-3));
}
/* No key: the halves have nothing to hold on to. */
.unkeyed i {
  border-radius: 50%;
}
/* Refused: struck through. */
.refused {
  position: relative;
}
.refused::after {
  content: '';
  position: absolute;
  inset: 5px -2px auto;
  border-top: 3px solid var(--ink);
  outline: 1px solid #fff;
}
</style>
