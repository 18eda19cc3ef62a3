<script setup>
defineProps({ name: String, berth: String, open: Boolean });
</script>

<template>
  <li class="harbour" :class="{ 'harbour-shut': !open }">
    <h2 style="margin: 0 0 8px">{{ name }}</h2>
    <span style="color: #5d6b70; font-size: 14px">{{ berth }}</span>
  </li>
</template>

<style scoped>
span {
  letter-spacing: 0.02em;
}
</style>
