import { cp, mkdir, readFile, rename, rm } from "node:fs/promises";
import { join } from "node:path";
import { fileURLToPath } from "node:url";
import { z } from "zod";

/** The built kit of this version. */
export const KIT_FOLDER = fileURLToPath(new URL("../../../kit/dist-web", import.meta.url));

/** The folder of all versions of the kit that were run in a home. */
export const keptKitsIn = (home: string) => join(home, "kits");

/** The metadata of a built kit. */
const aboutSchema = z.object({ version: z.string().regex(/^\d+\.\d+\.\d+(-[\w.]+)?$/) });
const ABOUT = "integrity.json";

/**
 * Keeps a copy of the kit of this version, beside those of versions before: pages that name a version go on with what
 * they were tried with after the server was upgraded.
 */
export async function keepKit(home: string, folder = KIT_FOLDER): Promise<void> {
  const kept = keptKitsIn(home);
  const about = await readFile(join(folder, ABOUT), "utf8");
  const { version } = aboutSchema.parse(JSON.parse(about));
  const own = join(kept, version);
  const before = await readFile(join(own, ABOUT), "utf8").catch(() => undefined);
  // while it is developed, a version changes
  if (before === about) return;
  const aside = join(kept, `.${version}.${process.pid}`);
  await mkdir(kept, { recursive: true });
  await cp(folder, aside, { recursive: true });
  await rm(own, { recursive: true, force: true });
  await rename(aside, own);
}
