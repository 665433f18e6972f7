<script setup lang="ts">
import { computed } from 'vue'
import { useViewpoint } from '../foundation/useViewpoint'
import './text/text.css'

/** A text as it is stored: sanitised by the server, of a short list of elements. */
const props = defineProps<{ html: string }>()

const viewpoint = useViewpoint()
/** Pictures are read with the eyes, and at the moment, at which the text is. */
const seen = computed(() =>
  viewpoint.isOnesOwn.value
    ? props.html
    : props.html.replace(
        /(src="\/api\/[a-z]+\/\d+\/items\/\d+\/pictures\/[0-9a-f]{64})"/g,
        (_, address: string) => `${address}?${viewpoint.key.value.replaceAll('&', '&amp;')}"`,
      ),
)
</script>

<template>
  <!-- eslint-disable-next-line vue/no-v-html -- the server keeps a named list of elements and nothing else -->
  <div class="text running-text" v-html="seen"></div>
</template>

<style scoped>
.text {
  max-width: 68ch;
  font-size: var(--size-large);
}
</style>
