<script setup lang="ts">
import TrialBar from '~/components/weight/TrialBar.vue'
</script>

<template>
  <div class="grid grid-cols-[minmax(0,1fr)] content-start gap-2">
    <TrialBar title="Flats" nothing="Every region has its fill." />
    <p class="quiet max-w-[500px]">
      Each region without a fill is proposed in an ink that no line has, and neighbours in different ones. Accept them
      all, then pour over single ones. Gaps and the smallest region are set under Pour.
    </p>
  </div>
</template>
