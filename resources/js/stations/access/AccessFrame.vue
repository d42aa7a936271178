<script setup lang="ts">
defineProps<{ heading: string; note: string }>()
</script>

<template>
  <div class="page">
    <main>
      <svg viewBox="0 0 40 22" width="60" height="33" aria-hidden="true">
        <g stroke="var(--ink)" stroke-width="2.4" stroke-linecap="round">
          <path d="M4 3v16M9 3v16M14 3v16M19 3v16" />
          <path d="M1.5 16.5 21.5 5.5" stroke="var(--tgt)" />
          <path d="M26 3v16M30.5 3v16M35 3v16M39 3v16" stroke="var(--src)" />
        </g>
      </svg>
      <h1>{{ heading }}</h1>
      <p class="quiet">{{ note }}</p>
      <slot />
    </main>
  </div>
</template>

<style scoped>
.page {
  min-block-size: 100%;
  display: grid;
  place-items: center;
  padding: 24px;
}
main {
  inline-size: min(400px, 100%);
  display: grid;
  gap: 12px;
}
p {
  margin: 0;
}
</style>
