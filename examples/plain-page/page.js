// What the page does beyond its elements: the place that was found is shown on the map and in the picture.
const [search, map, still] = ["search", "map", "still"].map((name) => document.querySelector(`bibliotope-${name}`));

search.addEventListener("bibliotope-found", ({ detail: { id, properties } }) => {
  map.markers = [{ at: properties.at, label: properties.line }];
  map.map.fit([properties.at]);
  still.setAttribute("of", id);
});
search.addEventListener("bibliotope-lost", () => {
  map.markers = [];
  still.removeAttribute("of");
});
