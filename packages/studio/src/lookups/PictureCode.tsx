import { useState } from "react";
import { useClient } from "../forms/use-client.ts";
import { CopyButton } from "../ui/CopyButton.tsx";
import { Segmented } from "../ui/Segmented.tsx";
import { imageCode, type Picture } from "./picture.ts";

type Size = "300x200" | "600x400";
type Sheet = "day" | "night";

/** What was found as a picture, and the element that shows it in a page. */
export function PictureCode({ picture }: { picture: Picture | undefined }) {
  const client = useClient();
  const [size, setSize] = useState<Size>("300x200");
  const [sheet, setSheet] = useState<Sheet>("day");
  const [broken, setBroken] = useState<string>();
  if (!picture || !client) return <p className="p-4 text-quiet">The picture stands here once something was found.</p>;
  const asked = { ...picture, words: { ...picture.words, ...(sheet === "night" ? { night: "1" } : {}) } };
  const [width, height] = size.split("x").map(Number);
  const url = client.stillUrl({ ...asked.words, size, scale: devicePixelRatio > 1 ? 2 : 1 });
  const code = imageCode(asked, size, location.origin);
  return (
    <div className="flex min-h-0 flex-1 flex-col gap-3 overflow-auto px-4 py-3">
      <div className="flex flex-wrap items-center gap-2">
        <Segmented
          label="Size"
          value={size}
          onChange={setSize}
          options={[
            ["300x200", "300 × 200"],
            ["600x400", "600 × 400"],
          ]}
        />
        <Segmented
          label="Sheet"
          value={sheet}
          onChange={setSheet}
          options={[
            ["day", "Day"],
            ["night", "Night"],
          ]}
        />
        <CopyButton text={code} className="ml-auto underline" />
      </div>
      {broken === url ? (
        <p role="alert" className="text-ochre">
          The picture did not come. Is the server still running?
        </p>
      ) : (
        <img
          src={url}
          alt={asked.alt}
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
