<script setup lang="ts">
import LongPressTip from '~/components/ui/LongPressTip.vue'
</script>

<template>
  <NuxtPage />
  <LongPressTip />
</template>
