<script lang="ts">
import { defineComponent } from 'vue'

/** What is drawn in mm: drawn again when it changes itself, and not when only the view of it moves. */
export default defineComponent({
  setup:
    (_, { slots }) =>
    () =>
      slots['default']?.(),
})
</script>
