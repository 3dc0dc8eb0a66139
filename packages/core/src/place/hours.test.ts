import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { hoursLine, type OpeningHours, readHours, WEEK } from "./index.ts";

const lineOf = (text: string, ...langs: string[]) => {
  const { hours } = readHours(text, langs);
  return hours && hoursLine(hours);
};

describe("opening hours", () => {
  it.each([
    ["Mo-Fr 09:00-17:00; Sa 10:00-12:00", "Mo-Fr 09:00-17:00; Sa 10:00-12:00"],
    ["Mo–Fr 9–17, Sa 10–14", "Mo-Fr 09:00-17:00; Sa 10:00-14:00"],
    ["Monday to Friday: 9am - 5pm", "Mo-Fr 09:00-17:00"],
    ["Mon, Wed & Fri 9:30 a.m. – 1 p.m. and 2–6 p.m.", "Mo,We,Fr 09:30-13:00; Mo,We,Fr 14:00-18:00"],
    ["Tue-Sat 10-5pm", "Tu-Sa 10:00-17:00"],
    ["Daily 8-20", "Mo-Su 08:00-20:00"],
    ["24/7", "Mo-Su 00:00-23:59"],
    ["Mo-Su 00:00-24:00", "Mo-Su 00:00-23:59"],
    ["Fr,Sa 18:00-02:00", "Fr,Sa 18:00-02:00"],
    ["Sa-Mo 10:00-16:00", "Sa,Su,Mo 10:00-16:00"],
    ["Mo-Su 09:00-18:00; Tu off", "Mo,We,Th,Fr,Sa,Su 09:00-18:00"],
    ["Mo 0900-1200, 1300-1700\nTu closed", "Mo 09:00-12:00; Mo 13:00-17:00"],
    ['["Mo-Fr 09:00-17:00","Sa 10:00-12:00"]', "Mo-Fr 09:00-17:00; Sa 10:00-12:00"],
    ['[{"dayOfWeek":["Monday"],"opens":"09:00","closes":"17:00:00"}]', "Mo 09:00-17:00"],
  ])("%s are read", (text, line) => {
    expect(lineOf(text)).toBe(line);
  });

  it.each([
    ["de", "Montag bis Freitag von 9 bis 17 Uhr, Samstag geschlossen", "Mo-Fr 09:00-17:00"],
    ["de", "Di, Do 14.30–18.00 Uhr", "Tu,Th 14:30-18:00"],
    ["fr", "du lundi au vendredi de 9h à 12h et de 14h à 18h30", "Mo-Fr 09:00-12:00; Mo-Fr 14:00-18:30"],
    ["es", "lunes a viernes de 9:00 a 14:00; sábado cerrado", "Mo-Fr 09:00-14:00"],
    ["it", "lun-ven 8.30-12.30, sab chiuso", "Mo-Fr 08:30-12:30"],
    ["pt", "segunda-feira a sexta-feira 9h-17h", "Mo-Fr 09:00-17:00"],
    ["nl", "ma t/m vr 9u-17u, zo gesloten", "Mo-Fr 09:00-17:00"],
    ["pl", "pon.–pt. 8:00–16:00, so 9:00-13:00", "Mo-Fr 08:00-16:00; Sa 09:00-13:00"],
    ["cs", "po a st 8:00-12:00", "Mo,We 08:00-12:00"],
    ["sv", "ons to fre 10-18", "We-Fr 10:00-18:00"],
    ["el", "Δευτέρα έως Παρασκευή 09:00-17:00", "Mo-Fr 09:00-17:00"],
  ])("are read in the words of %s: %s", (lang, text, line) => {
    expect(lineOf(text, lang)).toBe(line);
  });

  it.each([
    "by appointment",
    "Mo-Fr 9-5",
    "Mo-Fr",
    "9-17",
    "Mo-Fr 25:00-26:00",
    "Mo-Fr 09:00",
    "PH off",
    "Mo-Fr 9-17 (ring)",
    "so 9-17",
    "[]",
    "{",
    "",
  ])("are not guessed at: %s", (text) => {
    expect(readHours(text)).toEqual({});
  });

  it("that contradict each other are none, and it is said where", () => {
    expect(readHours("Mo-Fr 09:00-17:00; We 10:00-12:00")).toEqual({ why: "two things are said of Wednesday" });
    expect(readHours("Su closed; Mo-Su 09:00-17:00")).toEqual({ why: "two things are said of Sunday" });
    // apart from each other they are two spans of one day
    expect(lineOf("Mo 09:00-12:00; Mo 13:00-17:00")).toBe("Mo 09:00-12:00; Mo 13:00-17:00");
  });

  it("that were written are read again as they are, whichever they be", () => {
    const clock = (minutes: number) =>
      `${String(Math.floor(minutes / 60)).padStart(2, "0")}:${String(minutes % 60).padStart(2, "0")}`;
    const days = fc.subarray([...WEEK], { minLength: 1 });
    const span = fc.tuple(fc.nat(1438), fc.nat(1438)).filter(([a, b]) => a < b);
    fc.assert(
      fc.property(days, span, (dayOfWeek, [opens, closes]) => {
        const hours: OpeningHours[] = [{ dayOfWeek, opens: clock(opens), closes: clock(closes) }];
        expect(readHours(hoursLine(hours))).toEqual({ hours });
      }),
    );
  });

  it("never throw, and never take long", () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 200, unit: fc.constantFrom(...'MoTu 09:0-17;,a{["') }), (text) => {
        readHours(text);
      }),
    );
    const began = performance.now();
    readHours("Mo ".repeat(20_000));
    readHours("9".repeat(60_000));
    expect(performance.now() - began).toBeLessThan(2000);
  });
});
