import { useState } from "react";
import { SERVICE_URL } from "../state/service-url.ts";
import { CopyButton } from "../ui/CopyButton.tsx";
import { Segmented } from "../ui/Segmented.tsx";
import { type Code, codeOf, type LookupQuery } from "./lookup-query.ts";

/** The same request as code. */
export function RequestCode({ query: params }: { query: LookupQuery }) {
  const [code, setCode] = useState<Code>("curl");
  const text = codeOf(params, code, SERVICE_URL);
  return (
    <div className="flex min-h-0 flex-1 flex-col px-4 py-3">
      <div className="flex items-center justify-between">
        <Segmented
          label="Language"
          value={code}
          onChange={setCode}
          options={[
            ["curl", "curl"],
            ["fetch", "fetch"],
            ["kit", "Kit"],
          ]}
        />
        <CopyButton text={text} />
      </div>
      <pre className="mt-3 min-h-0 flex-1 overflow-auto font-mono text-[12.5px] leading-5">{text}</pre>
    </div>
  );
}
