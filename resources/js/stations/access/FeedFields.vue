<script setup lang="ts">
import { computed } from 'vue'
import { type Feed, PAGINGS } from '@/stations/access/feed'

/** Where a web feed stands, and how one comes from a page of it to the next. */
const feed = defineModel<Feed>({ required: true })
const hasParameter = computed(() => ['page', 'offset', 'cursor'].includes(feed.value.paging))
const hasField = computed(() => ['next', 'cursor'].includes(feed.value.paging))
</script>

<template>
  <label class="wide"
    >Address <el-input v-model="feed.url" aria-label="Address of the feed" placeholder="https://example.org/berths" autocomplete="off"
  /></label>
  <label>shown in the header <el-input v-model="feed.header" aria-label="Header of the token" autocomplete="off" /></label>
  <label>after the word <el-input v-model="feed.prefix" aria-label="Word before the token" autocomplete="off" /></label>
  <label
    >The next page
    <el-select v-model="feed.paging" aria-label="How one comes to the next page">
      <el-option v-for="(name, paging) in PAGINGS" :key="paging" :value="paging" :label="name" />
    </el-select>
  </label>
  <label v-if="hasParameter">asked for by the parameter <el-input v-model="feed.parameter" aria-label="Parameter" autocomplete="off" /></label>
  <label v-if="hasField">stands in the field <el-input v-model="feed.field" aria-label="Field" placeholder="paging.next" autocomplete="off" /></label>
  <label v-if="feed.paging === 'page'">first page <el-input-number v-model="feed.first" :min="0" :max="1" aria-label="Number of the first page" /></label>
  <label v-if="feed.paging === 'offset'"
    >records of a page <el-input-number v-model="feed.size" :min="1" :controls="false" aria-label="Records of a page"
  /></label>
  <label v-if="feed.paging !== 'none'"
    >records stand in the field
    <el-input v-model="feed.records" aria-label="Field of the records" placeholder="the answer itself is the list" autocomplete="off"
  /></label>
</template>

<style scoped>
@import './fields.css';
</style>
