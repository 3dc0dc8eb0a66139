import { Client, type TraceEvent } from "@bibliotope/kit";
import type { Country } from "@bibliotope/wire";
import { useEffect, useMemo, useState } from "react";
import { useSessionQuery } from "../state/api.ts";

/** A client of the kit with the workbench's own web key. */
export function useClient(trace?: (event: TraceEvent) => void): Client | undefined {
  const key = useSessionQuery().data?.studioKey;
  return useMemo(() => (key ? new Client({ key, trace }) : undefined), [key, trace]);
}

/** The countries held, asked once. */
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
