import { SAMPLE_FORMS } from "@bibliotope/islands";
import { afterAll, beforeAll, describe, expect, it } from "vitest";
import { ownDatabase } from "../../testing/own-server.ts";
import { connect, migrate } from "../database/connect.ts";
import { listVersions, readDraft, saveDraft } from "./forms.repository.ts";
import { seedForms } from "./seed-forms.ts";

describe("the sample forms of a database", () => {
  let ownDb: Awaited<ReturnType<typeof ownDatabase>>;
  let database: ReturnType<typeof connect>;
  const [{ ref, definition }] = SAMPLE_FORMS;

  beforeAll(async () => {
    ownDb = await ownDatabase("bibliotope_seed_forms");
    database = connect(ownDb.url, 2);
    await migrate(database);
    await seedForms(database);
  });
  afterAll(async () => {
    await database.destroy();
    await ownDb.drop();
  });

  it("are made once, and published", async () => {
    await seedForms(database);
    for (const sample of SAMPLE_FORMS)
      expect(await readDraft(database, sample.ref)).toMatchObject({
        publishedVersion: 1,
        changed: false,
        definition: sample.definition,
      });
  });

  it("follow the product as long as nobody has changed them", async () => {
    const older = { ...definition, title: "An older title" };
    await ownDb
      .database("forms")
      .where({ ref })
      .update({ draft: JSON.stringify(older) });
    await seedForms(database);
    expect(await readDraft(database, ref)).toMatchObject({ publishedVersion: 2, changed: false, definition });
  });

  it("are the developer's own once they are changed", async () => {
    const mine = { ...definition, title: "My own title" };
    expect(await saveDraft(database, ref, 1, mine)).toBe(true);
    await seedForms(database);
    expect(await readDraft(database, ref)).toMatchObject({ revision: 2, definition: mine });
    expect(await listVersions(database, ref)).toHaveLength(2);
  });
});
