<script setup>
import { useHeight } from "@bibliotope/kit/vue";

/** A lookup without a box: asked again whenever the place changes. */
const props = defineProps(["at"]);
const { state } = useHeight(() => props.at);
</script>

<template>
  <p v-if="state.error" role="alert">{{ state.error.message }}</p>
  <p v-else>{{ typeof state.result === "number" ? Math.round(state.result) : "…" }} m above the sea</p>
</template>
