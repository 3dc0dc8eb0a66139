import { defineComponent, h, onMounted, ref } from "vue";

/** Where the server is, whose docs these are: they lie under it at `docs/`. */
const SERVICE = import.meta.env.BASE_URL.replace(/docs\/$/, "");

/** Pieces of the kit that can be tried in a page, with the attributes that show them best. */
const PIECES = {
  search: ["bibliotope-search", { label: "Find an address or a place", name: "find" }],
  map: ["bibliotope-map", { label: "Map of the data", style: "height: 22rem" }],
};

/** A piece of the kit as it runs, with the key of the workbench; for who is signed in to it. */
export const LivePiece = defineComponent({
  props: { piece: { type: String, required: true } },
  setup({ piece }) {
    const key = ref();
    const words = ref("");
    const found = ref("");
    onMounted(async () => {
      if (!Object.hasOwn(PIECES, piece)) return;
      try {
        const response = await fetch(`${SERVICE}api/session`);
        if (!response.ok) throw new Error(String(response.status));
        const { studioKey } = await response.json();
        await import(/* @vite-ignore */ `${location.origin}${SERVICE}kit/v1/bibliotope.js`);
        key.value = studioKey;
      } catch {
        words.value = "Sign in to the workbench of this server, and this piece of the kit can be tried here.";
      }
    });
    return () => {
      if (!key.value) return h("p", { class: "live-piece-words" }, words.value);
      const [tag, attributes] = PIECES[piece];
      return h("div", { class: "live-piece" }, [
        h(tag, {
          ...attributes,
          "web-key": key.value,
          url: `${location.origin}${SERVICE}`.replace(/\/$/, ""),
          "onBibliotope-found": ({ detail }) => {
            found.value = detail?.properties?.line ?? "";
          },
        }),
        found.value ? h("p", { role: "status" }, found.value) : null,
      ]);
    };
  },
});
