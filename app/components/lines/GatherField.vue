<script setup lang="ts">
import ChoiceField from '~/components/ui/ChoiceField.vue'
import { useStudioStore } from '~/stores/studio'

const GATHERS = [
  { id: 'box', title: 'Box', help: 'Takes lines with any part in the box' },
  { id: 'lasso', title: 'Lasso', help: 'Takes lines that lie wholly in the loop' },
  { id: 'touch', title: 'Touch', help: 'Takes lines that the drag goes over' },
] as const

const studio = useStudioStore()
</script>

<template>
  <ChoiceField v-model="studio.preferences.gather" label="A drag takes by" :choices="GATHERS" />
</template>
