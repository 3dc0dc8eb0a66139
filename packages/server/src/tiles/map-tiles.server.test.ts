import { setTimeout as wait } from "node:timers/promises";
import { Worker } from "node:worker_threads";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { json, shared } from "../../testing/shared.ts";
import { connect } from "../database/connect.ts";
import { livePublication } from "../publication/publication.repository.ts";
import { MapTiles } from "./map-tiles.ts";
import type { Still } from "./still.ts";

// the compiled one, resolved as the server does
const COMPILED = new URL("../../dist/tiles/tiles.worker.js", import.meta.url);

let versions: number[];
let tiles: MapTiles;
let painters: Worker[];
beforeAll(async () => {
  const database = connect(shared().databaseUrl, 1);
  versions = (await livePublication(database))!.versions;
  await database.destroy();
  painters = [];
  tiles = makeTiles();
  await (await tiles.prepare(versions)).putIn();
});
afterAll(async () => {
  await tiles.stop();
});

function makeTiles(): MapTiles {
  return new MapTiles(shared().databaseUrl, { warn: () => undefined }, (task) => {
    const painter = new Worker(COMPILED, { workerData: task, execArgv: [] });
    painters.push(painter);
    return painter;
  });
}

/** The piece of the map on which a position lies (OGC WebMercatorQuad). */
function tileAt({ lat, lon }: { lat: number; lon: number }, z: number): { x: number; y: number } {
  const north = Math.asinh(Math.tan((lat * Math.PI) / 180)) / Math.PI;
  return { x: Math.floor(((lon + 180) / 360) * 2 ** z), y: Math.floor(((1 - north) / 2) * 2 ** z) };
}

/** Pictures as large as they may be, each of another place. */
let places = 0;
const large = (): Still => ({
  view: { at: { lat: -35.18, lon: -21.62 - places++ / 1000 }, zoom: 12 },
  size: { width: 1280, height: 1280 },
  density: 2,
  night: false,
  style: "streets",
  langs: [],
  over: {},
});
let pieces = 0;
const tile = () => tiles.tile(15, 14_400 + (pieces++ % 200), 19_700);

it("a map is made ready all the same when its thread is ended on the way, and not when it ends again", {
  tags: ["long"],
}, async () => {
  let begun = 0;
  let ends = 1;
  const doomed = new MapTiles(shared().databaseUrl, { warn: () => undefined }, (task) => {
    begun++;
    const painter = new Worker(COMPILED, { workerData: task, execArgv: [] });
    if (begun <= ends) void painter.terminate();
    return painter;
  });
  await (await doomed.prepare(versions)).putIn();
  expect(begun).toBe(2);
  expect(await doomed.tile(15, 14_400, 19_700)).toContain("features");
  [begun, ends] = [0, 2];
  await expect(doomed.prepare(versions)).rejects.toThrow("ended before it was ready");
  await doomed.stop();
});

describe("pieces of the map and pictures", () => {
  it("come in this order: a piece never waits for a picture that waits itself", { tags: ["long"] }, async () => {
    const ended: string[] = [];
    const pictures = Array.from({ length: 6 }, () => tiles.still(large()).then(() => ended.push("picture")));
    const map = Array.from({ length: 20 }, () => tile().then(() => ended.push("piece")));
    await Promise.all([...pictures, ...map]);
    // the one that was begun may be done first
    expect(ended.slice(0, 21).filter((what) => what === "piece")).toHaveLength(20);
  });

  it("are refused when too much waits, and not made when nobody waits for them any more", {
    tags: ["long"],
  }, async () => {
    const gone = new AbortController();
    // one is in hand, nine wait
    const left = Array.from({ length: 10 }, () => tiles.still(large(), gone.signal));
    const outcomes = Promise.allSettled(left);
    await expect(tiles.still(large())).rejects.toMatchObject({ seconds: expect.any(Number) });
    expect(await tile()).toContain("features");
    gone.abort();
    expect((await outcomes).map(({ status }) => status)).toEqual(left.map(() => "rejected"));
    // as many again find room at once
    const wanted = Array.from({ length: 9 }, () => tiles.still(large()));
    for (const png of await Promise.all(wanted)) expect(png?.length).toBeGreaterThan(1000);
  });

  it("are made once for all who ask, and go on while one of them is still there", async () => {
    const [one, other] = [new AbortController(), new AbortController()];
    const still = large();
    const both = [tiles.still(still, one.signal), tiles.still(still, other.signal)];
    one.abort();
    await expect(both[0]).rejects.toThrow();
    expect((await both[1])?.length).toBeGreaterThan(1000);
  });

  it("are made by another painter when theirs has died; only what it had in hand is lost", {
    tags: ["long"],
  }, async () => {
    const requests = [tiles.still(large()), tiles.still(large()), tiles.still(large())];
    const outcomes = Promise.allSettled(requests);
    await painters.at(-1)!.terminate();
    const [first, ...others] = await outcomes;
    expect(first.status).toBe("rejected");
    expect(others.map(({ status }) => status)).toEqual(["fulfilled", "fulfilled"]);
    expect(await tile()).toContain("features");
  });

  it("show what was corrected by hand after their painter has died too", { tags: ["long"] }, async () => {
    const { body } = await json("/v1/forward?q=harbour+row+tidewell&kinds=street");
    const [street] = body.features;
    const [lon, lat] = street.geometry.coordinates;
    const { x, y } = tileAt({ lat, lon }, 16);
    const gone = { streets: [], places: [], gone: [street.id] };
    // what is to be seen, from a painter that lives
    const other = makeTiles();
    const beside = await other.prepare(versions);
    await beside.putIn();
    const before = await other.tile(16, x, y);
    beside.amend(gone);
    const expected = await other.tile(16, x, y);
    expect(expected).not.toBe(before);
    await other.stop();

    const prepared = await tiles.prepare(versions);
    await prepared.putIn();
    prepared.amend(gone);
    // nothing of it was requested yet, so that nothing is kept
    await painters.at(-1)!.terminate();
    let after: string | undefined;
    while (after === undefined) {
      after = await tiles.tile(16, x, y).catch(() => undefined);
      await wait(20);
    }
    expect(after).toBe(expected);
  });
});
