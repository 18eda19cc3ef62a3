<script setup>
import Harbour from './Harbour.vue';
import Notice from './Notice.vue';

const harbours = [
  { name: 'Skerrin', berth: 'North quay', open: true },
  { name: 'Holmsay', berth: 'Old pier', open: true },
  { name: 'Vesta Sound', berth: 'Slip', open: false },
];
</script>

<template>
  <main>
    <h1 style="margin: 0 0 8px; color: #0b4a5e">Harbours</h1>
    <ul v-if="harbours.length > 0" style="padding: 0; list-style: none">
      <Harbour v-for="harbour in harbours" :key="harbour.name" v-bind="harbour" />
    </ul>
    <p v-else style="color: #5d6b70; font-size: 14px">No harbour is open.</p>
    <Notice><strong style="color: #0b4a5e">Wind:</strong> no evening crossing.</Notice>
  </main>
</template>
