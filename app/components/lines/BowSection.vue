<script setup lang="ts">
import ChoiceField from '~/components/ui/ChoiceField.vue'
import TickField from '~/components/ui/TickField.vue'
import { useStudioStore } from '~/stores/studio'

const studio = useStudioStore()
const BENDS = [
  { id: 'arc', title: 'A circle', help: 'The bow is a part of a circle' },
  { id: 'rod', title: 'A rod', help: 'The bow bends most in its middle, like a thin rod pressed together at its ends' },
] as const
</script>

<template>
  <ChoiceField v-model="studio.preferences.bend" label="Bends like" :choices="BENDS" />
  <TickField v-model="studio.preferences.bowsJoin">A bow goes on smoothly from the one before</TickField>
</template>
