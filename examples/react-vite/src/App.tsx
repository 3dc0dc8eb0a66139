import { AddressForm, MapView, SearchField, Still, useHeight, useReverse, useSearch } from "@bibliotope/kit/react";
import { useMemo, useState } from "react";
import { DEFINITION } from "./definition";

/** Three ways to an address: a form filled by its tokens, a form by its definition, and a list of one's own. */
export function App() {
  const [place, setPlace] = useState<{ ref: string; line: string; at: { lat: number; lon: number } }>();
  const markers = useMemo(() => (place ? [{ at: place.at, label: place.line }] : []), [place]);
  return (
    <main>
      <h1>Members</h1>
      <form aria-label="By tokens">
        <SearchField
          label="Find your address"
          name="find"
          kinds={["address", "street"]}
          fills
          onFound={({ id, properties: { line, at } }) => setPlace({ ref: id, line, at })}
          onLost={() => setPlace(undefined)}
        />
        <label>
          Street <input name="street" autoComplete="address-line1" />
        </label>
        <label>
          Town <input name="town" autoComplete="address-level2" />
        </label>
        <label>
          Postcode <input name="postcode" autoComplete="postal-code" />
        </label>
      </form>
      <p role="status">{place ? `At ${place.at.lat}, ${place.at.lon}` : "No place yet"}</p>
      {place ? <Ground at={place.at} /> : null}
      <MapView label="Where it is" markers={markers} style={{ height: 300 }} />
      {place ? <Still of={{ of: place.ref }} alt={`Map around ${place.line}`} width={280} height={180} /> : null}

      <AddressForm aria-label="By definition" definition={DEFINITION} onSubmit={(event) => event.preventDefault()}>
        {DEFINITION.fields.map(({ name, label }) => (
          <label key={name}>
            {label} <input name={name} />
          </label>
        ))}
      </AddressForm>

      <OwnList />
    </main>
  );
}

/** Lookups without a box: how high the ground lies, and which county that is, asked again whenever the place changes. */
function Ground({ at }: { at: { lat: number; lon: number } }) {
  const height = useHeight(at);
  const around = useReverse({ at, kinds: "county" });
  if (height.error) return <p role="alert">{height.error.message}</p>;
  const metres = height.result === undefined || height.result === null ? "…" : Math.round(height.result);
  const county = around.result?.features[0]?.properties.parts.county?.name ?? "…";
  return (
    <p data-state={height.status}>
      {metres} m above the sea, in {county}
    </p>
  );
}

/** The search without a look: every element is the application's own. */
function OwnList() {
  const { status, suggestions, record, words, inputProps, listProps, optionProps } = useSearch({ kinds: ["town"] });
  return (
    <section>
      <label>
        Town by name <input {...inputProps} />
      </label>
      <ul {...listProps}>
        {suggestions.map(({ ref, line }, i) => (
          <li key={ref} {...optionProps(i)}>
            {line}
          </li>
        ))}
      </ul>
      <p>{words ?? (record ? `Chosen: ${record.properties.line}` : status)}</p>
    </section>
  );
}
