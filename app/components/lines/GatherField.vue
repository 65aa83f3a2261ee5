<script setup lang="ts">
import { computed } from 'vue'
import ChoiceField from '~/components/ui/ChoiceField.vue'
import { useStudioStore } from '~/stores/studio'

/** How a drag over paper takes what it takes: lines, or nodes. */
const props = defineProps<{ what: 'lines' | 'nodes' }>()
const studio = useStudioStore()

const gathers = computed(() =>
  props.what === 'lines'
    ? ([
        { id: 'box', title: 'Box', help: 'Takes lines with any part in the box' },
        { id: 'lasso', title: 'Lasso', help: 'Takes lines that lie wholly in the loop' },
        { id: 'touch', title: 'Touch', help: 'Takes lines that the drag goes over' },
      ] as const)
    : ([
        { id: 'box', title: 'Box', help: 'Takes nodes in the box' },
        { id: 'lasso', title: 'Lasso', help: 'Takes nodes in the loop' },
        { id: 'touch', title: 'Touch', help: 'Takes nodes that the drag goes over' },
      ] as const),
)
</script>

<template>
  <ChoiceField v-model="studio.preferences.gather" label="A drag takes by" :choices="gathers" />
</template>
