<script setup>
import { provideBibliotope } from "@bibliotope/kit/vue";
import { computed, ref } from "vue";
import GroundHeight from "./GroundHeight.vue";

const { BIBLIOTOPE_URL: url, BIBLIOTOPE_WEB_KEY: webKey } = import.meta.env;
provideBibliotope({ url, key: webKey });

const place = ref();
const markers = computed(() =>
  place.value ? [{ at: place.value.properties.at, label: place.value.properties.line }] : [],
);
</script>

<template>
  <main>
    <h1>Members</h1>
    <form aria-label="By tokens">
      <bibliotope-search
        :url="url"
        :web-key="webKey"
        name="find"
        label="Find your address"
        fills
        @bibliotope-found="place = $event.detail"
        @bibliotope-lost="place = undefined"
      />
      <label>Street <input name="street" autocomplete="address-line1" /></label>
      <label>Town <input name="town" autocomplete="address-level2" /></label>
      <label>Postcode <input name="postcode" autocomplete="postal-code" /></label>
    </form>
    <p role="status">{{ place ? `Chosen: ${place.properties.line}` : "No place yet" }}</p>
    <GroundHeight v-if="place" :at="place.properties.at" />
    <bibliotope-map :url="url" :web-key="webKey" label="Where it is" :markers.prop="markers" />
  </main>
</template>
