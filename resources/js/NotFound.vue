<script setup lang="ts">
import TopBar from '@/parts/TopBar.vue'
</script>

<template>
  <TopBar />
  <main class="page">
    <h1>There is no page at this address</h1>
    <p><RouterLink to="/">Go to the board</RouterLink></p>
  </main>
</template>

<style scoped>
.page {
  padding: 24px;
}
</style>
