import { MAP_STYLES, type MapStyle } from "@bibliotope/core/map";
import { STYLE_NAMES } from "@bibliotope/kit";
import { useState } from "react";
import { useClient } from "../forms/use-client.ts";
import { SERVICE_URL } from "../state/service-url.ts";
import { CopyButton } from "../ui/CopyButton.tsx";
import { Segmented } from "../ui/Segmented.tsx";
import { imageCode, type Picture } from "./picture.ts";

/** Sizes in CSS pixels. */
const SIZES = { small: { width: 300, height: 200 }, large: { width: 600, height: 400 } };
type Light = "day" | "night";

/** What was found as a picture, and the element that shows it in a page. */
export function PictureCode({ picture }: { picture: Picture | undefined }) {
  const client = useClient();
  const [size, setSize] = useState<keyof typeof SIZES>("small");
  const [style, setStyle] = useState<MapStyle>("streets");
  const [light, setLight] = useState<Light>("day");
  const [broken, setBroken] = useState<string>();
  if (!picture || !client) return <p className="p-4 text-quiet">The picture appears here once something is found.</p>;
  const appearance = { ...(style === "streets" ? {} : { style }), ...(light === "night" ? { night: "1" } : {}) };
  const query = { ...picture, words: { ...picture.words, ...appearance } };
  const { width, height } = SIZES[size];
  const url = client.stillUrl({ ...query.words, width, height, density: devicePixelRatio > 1 ? 2 : 1 });
  const code = imageCode(query, SIZES[size], SERVICE_URL);
  return (
    <div className="flex min-h-0 flex-1 flex-col gap-3 overflow-auto px-4 py-3">
      <div className="flex flex-wrap items-center gap-1.5">
        <Choice
          label="Size"
          value={size}
          onChange={setSize}
          options={[
            ["small", "300 × 200"],
            ["large", "600 × 400"],
          ]}
        />
        <Choice
          label="Style"
          value={style}
          onChange={setStyle}
          options={MAP_STYLES.map((kind) => [kind, STYLE_NAMES[kind]] as const)}
        />
        <Segmented
          label="Theme"
          value={light}
          onChange={setLight}
          options={[
            ["day", "Day"],
            ["night", "Night"],
          ]}
        />
        <CopyButton text={code} className="ml-auto underline" />
      </div>
      {broken === url ? (
        <p role="alert" className="text-ochre">
          The picture could not be loaded. Is the server still running?
        </p>
      ) : (
        <img
          src={url}
          alt={query.alt}
          width={width}
          height={height}
          onError={() => setBroken(url)}
          className="h-auto max-w-full rounded border border-rule"
        />
      )}
      <pre className="font-mono text-[12.5px] leading-5 break-all whitespace-pre-wrap">{code}</pre>
    </div>
  );
}

interface ChoiceProps<T extends string> {
  label: string;
  value: T;
  onChange: (value: T) => void;
  options: readonly (readonly [value: T, name: string])[];
}

/** A choice of one among several, in little room. */
function Choice<T extends string>({ label, value, onChange, options }: ChoiceProps<T>) {
  return (
    <select
      aria-label={label}
      value={value}
      onChange={(event) => onChange(event.target.value as T)}
      className="h-[28px] rounded border border-edge bg-page px-1 text-[12.5px]"
    >
      {options.map(([option, name]) => (
        <option key={option} value={option}>
          {name}
        </option>
      ))}
    </select>
  );
}
