import type { Facts, Name } from "@bibliotope/core/place";
import { fold } from "@bibliotope/core/text";
import { latin } from "../names/latin.ts";
import type { Random } from "../random.ts";
import type { World, WorldAddress } from "../world.ts";
import type { Town } from "./areas.ts";

/** Kinds of place with the words that name them in each country. */
const KINDS_OF_PLACE: readonly { kind: string; importance: number; QR: string; QV: string; QY: string }[] = [
  { kind: "branch-library", importance: 0.3, QR: "Branch Library", QV: "Filialbibliotek", QY: "Βιβλιοστάσιο" },
  { kind: "reading-room", importance: 0.25, QR: "Reading Room", QV: "Läsesal", QY: "Αναγνωστήρι" },
  { kind: "book-van-stop", importance: 0.12, QR: "Book Van Stop", QV: "Bokvagnhåll", QY: "Στάση Βιβλίου" },
  { kind: "book-boat-stop", importance: 0.12, QR: "Book Boat Landing", QV: "Bokbåtbrygga", QY: "Μώλος Βιβλίου" },
  { kind: "school", importance: 0.15, QR: "School", QV: "Skøle", QY: "Σχολείο" },
  { kind: "bakery", importance: 0.08, QR: "Bakery", QV: "Bageri", QY: "Φούρνος" },
  { kind: "inn", importance: 0.1, QR: "Inn", QV: "Värdshus", QY: "Πανδοχείο" },
  { kind: "hall", importance: 0.12, QR: "Hall", QV: "Hall", QY: "Αίθουσα" },
];

const WEEKDAYS = ["Monday", "Tuesday", "Wednesday", "Thursday", "Friday"];

/** Sets named places at addresses of a town: one for about every twenty addresses. */
export function addPlaces(
  world: World,
  code: "QR" | "QV" | "QY",
  town: Town,
  addresses: readonly WorldAddress[],
  random: Random,
): void {
  const streets = new Map(world.streets.map((street) => [street.key, street]));
  const taken = new Set<string>();
  for (let i = 0; i < addresses.length; i += 20) {
    const address = addresses[Math.min(addresses.length - 1, i + random.integer(0, 19))];
    const street = streets.get(address.street)!;
    const sort =
      i === 0
        ? KINDS_OF_PLACE[0]
        : KINDS_OF_PLACE[
            Math.min(KINDS_OF_PLACE.length - 1, 1 + Math.floor(random.next() * (KINDS_OF_PLACE.length - 1)))
          ];
    const names = nameOf(
      code,
      sort[code],
      i === 0 ? town.names : street.kind === "block" ? town.names : street.names,
      i,
    );
    if (taken.has(names[0].name)) continue;
    taken.add(names[0].name);
    world.places.push({
      key: `${address.key}/${sort.kind}`,
      country: code,
      area: street.area,
      address: address.key,
      kinds: [sort.kind],
      names,
      at: address.at,
      importance: sort.importance,
      facts: factsOf(code, sort.kind, names, random),
    });
  }
}

function nameOf(code: "QR" | "QV" | "QY", word: string, of: readonly Name[], number: number): Name[] {
  const own =
    code === "QR"
      ? of[0].name.replace(/ (Street|Road|Lane|Row|Steps|Hill|Quay|Walk|Green|Terrace|Court|Place)$/, "")
      : of[0].name;
  if (code === "QR") return [{ lang: "en", name: `${own} ${word}` }];
  if (code === "QV") return [{ lang: "qov-Latn", name: `${own} ${word.toLowerCase()}` }];
  const name = number === 0 ? `${word} ${own}` : `${word} ${own} ${Math.floor(number / 20) + 1}`;
  return [
    { lang: "qth-Grek", name },
    { lang: "qth-Latn", name: latin(name) },
  ];
}

/** Some facts are missing, as they are in life. */
function factsOf(code: string, kind: string, names: readonly Name[], random: Random): Facts {
  const facts: Facts = {};
  if (random.chance(0.7))
    facts.phone = `${{ QR: "+990 1", QV: "+990 2", QY: "+990 3" }[code]} ${random.integer(100, 999)} ${random.integer(1000, 9999)}`;
  if (random.chance(0.5))
    facts.url = `https://${fold(names[0].name)
      .text.replace(/[^a-z0-9]+/g, "-")
      .replace(/^-|-$/g, "")}.example`;
  if (kind.startsWith("b") || kind === "reading-room") {
    facts.stepFree = random.chance(0.6);
    facts.languages = code === "QR" ? ["en"] : [code === "QV" ? "qov" : "qth", "en"];
    facts.openingHours = [{ dayOfWeek: WEEKDAYS, opens: "09:00", closes: random.pick(["17:00", "18:00", "19:30"]) }];
    if (random.chance(0.5)) facts.openingHours.push({ dayOfWeek: ["Saturday"], opens: "10:00", closes: "14:00" });
    const seats = 8 + ([...names[0].name].reduce((sum, letter) => sum + letter.codePointAt(0)!, 0) % 53);
    facts.own = { seats: { label: "Seats", kind: "number", value: seats } };
  }
  return facts;
}
