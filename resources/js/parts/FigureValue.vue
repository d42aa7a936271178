<script setup lang="ts">
import { count } from '@/format/counts'

/** A figure that carries its name in the page: a path in the result of the engine, or in an answer of the API. */
defineProps<{ name: string; of: number | string }>()
</script>

<template>
  <span :data-figure="name">{{ typeof of === 'number' ? count(of) : of }}</span>
</template>
