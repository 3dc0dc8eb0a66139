import type { FormExample } from "@bibliotope/core/form";
import type { Client } from "@bibliotope/kit";
import { useEffect, useState } from "react";

/** An address of each country of the islands, to see at once what a pattern gives there. */
const EXAMPLES = [
  { code: "QR", country: "Lorramere", title: "Lorramere", q: "12 Harbour Row Tidewell" },
  { code: "QR", country: "Lorramere", title: "Lorramere, a flat", q: "Flat 3, 52 Harbour Row" },
  { code: "QV", country: "Ovarde", title: "Ovarde", q: "Østergränd 3 Vårhamn" },
  { code: "QY", country: "Thalmyra", title: "Thalmyra", q: "Πελανία Τετράγωνο 4" },
];

/** Looks the examples up; countries that are not in the data are left out. */
export function useExamples(client: Client | undefined): FormExample[] {
  const [examples, setExamples] = useState<FormExample[]>([]);
  useEffect(() => {
    if (!client) return;
    const controller = new AbortController();
    const ask = async ({ code, country, title, q }: (typeof EXAMPLES)[number]): Promise<FormExample[]> => {
      const { features } = await client.forward({ q, countries: code, kinds: "address", limit: 1 }, controller.signal);
      return features.map(({ id, properties }) => ({ title, country, answer: { ref: id, ...properties } }));
    };
    void Promise.all(EXAMPLES.map((example) => ask(example).catch(() => []))).then((found) => {
      if (!controller.signal.aborted) setExamples(found.flat());
    });
    return () => controller.abort();
  }, [client]);
  return examples;
}
