<script>
import { Client } from "@bibliotope/kit/client";
import { bindTokens } from "@bibliotope/kit/fill";
import { lookup } from "@bibliotope/kit/lookup";

const { BIBLIOTOPE_URL: url, BIBLIOTOPE_WEB_KEY: webKey } = import.meta.env;
const client = new Client({ url, key: webKey });

let place = $state.raw();
const markers = $derived(place ? [{ at: place.properties.at, label: place.properties.line }] : []);

/** A lookup without a box is a store: asked again whenever the place changes. */
const height = lookup(client, "height");
$effect(() => height.set(place?.properties.at));

/** The first line of the form's own address searches; what it returns takes that away again. */
const fillsItself = (form) => bindTokens(form, { client, filled: (record) => (place = record) });
</script>

<main>
  <h1>Members</h1>
  <form aria-label="By tokens" {@attach fillsItself}>
    <label>Street <input name="street" autocomplete="address-line1" /></label>
    <label>Town <input name="town" autocomplete="address-level2" /></label>
    <label>Postcode <input name="postcode" autocomplete="postal-code" /></label>
  </form>
  <p role="status">{place ? `Chosen: ${place.properties.line}` : "No place yet"}</p>
  {#if $height.error}
    <p role="alert">{$height.error.message}</p>
  {:else if typeof $height.result === "number"}
    <p>{Math.round($height.result)} m above the sea</p>
  {/if}
  <bibliotope-map {url} web-key={webKey} label="Where it is" {markers}></bibliotope-map>
</main>
