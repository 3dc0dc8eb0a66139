import { Client, type ClientOptions, type TraceEvent } from "@bibliotope/kit";
import type { Country } from "@bibliotope/wire";
import { useEffect, useMemo, useState } from "react";
import { useSessionQuery } from "../state/api.ts";
import { SERVICE_URL } from "../state/service-url.ts";

/** A client of the kit with the workbench's own web key; with the try key where a situation is to be played. */
export function useClient(
  trace?: (event: TraceEvent) => void,
  situation?: ClientOptions["situation"],
  plays?: ClientOptions["plays"],
): Client | undefined {
  const { studioKey, tryKey } = useSessionQuery().data ?? {};
  const key = situation ? tryKey : studioKey;
  return useMemo(
    () => (key ? new Client({ key, url: SERVICE_URL, trace, situation, plays }) : undefined),
    [key, trace, situation, plays],
  );
}

/** The countries with data, requested once. */
export function useCountries(client: Client | undefined): Country[] | undefined {
  const [countries, setCountries] = useState<Country[]>();
  useEffect(() => {
    client?.countries().then(
      ({ countries }) => setCountries(countries),
      () => setCountries([]),
    );
  }, [client]);
  return countries;
}
