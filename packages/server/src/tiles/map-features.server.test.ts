import type { World } from "@bibliotope/islands";
import { expect, it } from "vitest";
import { shared } from "../../testing/shared.ts";
import { connect } from "../database/connect.ts";
import { storeWorld } from "../gazetteer/gazetteer.repository.ts";
import { readMapFeatures } from "./map-features.repository.ts";
import { worldFeatures } from "./world-features.ts";

it("makes a map of data that holds only addresses: the world's lands, land of its own, streets, points and names", async () => {
  const name = (text: string) => [{ lang: "en", name: text }];
  const at = { lat: -35, lon: -21 };
  const rings: [number, number][][] = [
    [
      [-21.1, -35.1],
      [-20.9, -35.1],
      [-20.9, -34.9],
      [-21.1, -35.1],
    ],
  ];
  const area = { country: "QR", names: name("Elsewhere"), at, population: 1, importance: 0.5, rings };
  const world: World = {
    postcodes: [],
    places: [],
    features: [],
    grids: [],
    areas: [
      { ...area, key: "QR/only", parent: null, kind: "country" as const },
      { ...area, key: "QR/only/town", parent: "QR/only", kind: "town" as const },
    ],
    streets: [
      {
        key: "QR/only/s",
        country: "QR",
        area: "QR/only/town",
        kind: "street" as const,
        names: name("Mill Lane"),
        at,
        importance: 0.1,
      },
    ],
    addresses: [1, 2, 3].map((number) => ({
      key: `QR/only/s/${number}`,
      country: "QR",
      street: "QR/only/s",
      number,
      suffix: "",
      postcode: null,
      at: { lat: -35, lon: -21 + number * 0.0003 },
    })),
  };
  const database = connect(shared().databaseUrl, 1);
  const transaction = await database.transaction();
  try {
    const version = await storeWorld(transaction, world, {
      name: "Only addresses",
      licence: "none",
      day: "2026-11-01",
      number: 1,
    });
    const features = await readMapFeatures(transaction, [version]);
    const ofTheWorld = worldFeatures().length;
    expect(features.slice(0, ofTheWorld)).toEqual(worldFeatures());
    const layers = features.slice(ofTheWorld).map(({ properties }) => properties.layer);
    expect(layers).toEqual(["land", "name", "point", "street"]);
    expect(features.at(-1)!.properties.names).toEqual(name("Mill Lane"));
  } finally {
    await transaction.rollback();
    await database.destroy();
  }
});
