<script setup lang="ts">
import ChoiceField from '~/components/ui/ChoiceField.vue'
import { useStudioStore } from '~/stores/studio'

const studio = useStudioStore()
const JOINS = [
  { id: 'free', title: 'As laid', help: 'A click lays a corner, a drag a curve' },
  { id: 'smooth', title: 'Smoothly', help: 'Clicked points lie on one smooth curve' },
  { id: 'straight', title: 'Straight', help: 'All segments are straight' },
] as const
</script>

<template>
  <ChoiceField v-model="studio.preferences.penJoins" label="Clicks join" :choices="JOINS" />
</template>
