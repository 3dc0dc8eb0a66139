import type { Segment } from "@bibliotope/core/index";
import type { Engine } from "@bibliotope/core/search";
import type { Knex } from "knex";
import { correctedEngine } from "../corrections/corrected.ts";
import { appliedCorrections } from "../corrections/corrections.repository.ts";
import { onceMore } from "../once-more.ts";
import { amendsOf } from "../tiles/amends.ts";
import type { Prepared } from "../tiles/map-tiles.ts";
import { lastPublications, livePublication } from "./publication.repository.ts";
import type { SegmentStore } from "./segment-store.ts";

/** Publications whose segments are kept. */
const KEPT = 3;

/** Where segments come from: a folder of files, or the thread that has read one. */
export type SegmentSource = Pick<SegmentStore, "segmentFor" | "nameOf" | "sweep">;

/** The index that answers lookups now. Swapped in one step; a lookup under way keeps the one it began with. */
export class LiveIndex {
  engine: Engine | undefined;
  /** True once it is known that nothing was ever published. */
  hasNothing = false;
  /** The segment as all threads share it, and the versions that it was built from. */
  shared: SharedArrayBuffer | undefined;
  versions: readonly number[] = [];
  /** Number of the publication that was opened last. */
  publication = 0;
  #segment: Segment | undefined;
  /** What is shown beside the segment. */
  #beside: Prepared | undefined;
  /** What was applied last, to know when it is another. */
  #corrections = "";
  /** What is shown of some versions beside their index, made ready. */
  #prepared: { name: string; beside: Promise<Prepared | undefined> } | undefined;

  constructor(
    private readonly database: Knex,
    private readonly store: SegmentSource,
    private readonly progress: (read: number, total: number) => void = () => undefined,
    private readonly beside: (versions: number[]) => Promise<Prepared | undefined> = async () => undefined,
  ) {}

  /** Looks whether something newer is published, and opens it. */
  readonly refresh = onceMore(() => this.#open());
  /** Lays what was corrected by hand over the open segment, when that has changed. */
  readonly recorrect = onceMore(() => this.#correct());

  /** Begins to make ready what is shown beside the index of some versions, while that is built. */
  prepare(versions: readonly number[]): Promise<Prepared | undefined> {
    const name = JSON.stringify(versions);
    if (this.#prepared?.name !== name) {
      void this.letGo();
      const beside = this.beside([...versions]);
      beside.catch(() => undefined);
      this.#prepared = { name, beside };
    }
    return this.#prepared.beside;
  }

  /** Lets go what was made ready and is not wanted after all. */
  async letGo(): Promise<void> {
    const prepared = this.#prepared;
    this.#prepared = undefined;
    await (await prepared?.beside.catch(() => undefined))?.letGo();
  }

  async #correct(): Promise<void> {
    const segment = this.#segment;
    if (!segment) return;
    const corrections = await appliedCorrections(this.database);
    const applied = `${segment.meta.name} ${JSON.stringify(corrections)}`;
    if (applied === this.#corrections) return;
    this.engine = correctedEngine(segment, corrections);
    const now = this.engine.layers.map((layer) => layer.segment);
    this.#beside?.amend(amendsOf(segment, now, corrections));
    this.#corrections = applied;
  }

  async #open(): Promise<void> {
    const publication = await livePublication(this.database);
    this.hasNothing = !publication;
    if (!publication || publication.id === this.publication) return;
    const making = this.prepare(publication.versions);
    try {
      const segment = await this.store.segmentFor(publication.versions, this.progress);
      // after a start nothing answers yet: lookups do not wait for the map
      if (!this.engine) await this.#answerBy(segment, publication.versions);
      const beside = await making;
      this.#prepared = undefined;
      this.#beside = beside;
      await this.#answerBy(segment, publication.versions);
      await beside?.putIn();
    } catch (error) {
      await this.letGo();
      throw error;
    }
    this.publication = publication.id;
    // those before are kept, so that going back takes a moment
    const before = [publication.versions, ...(await lastPublications(this.database, KEPT))];
    await this.store.sweep(before.map((versions) => this.store.nameOf(versions)));
  }

  /** Lookups are answered by a segment from now on, and what is drawn beside it gets the corrections. */
  async #answerBy(segment: Segment, versions: readonly number[]): Promise<void> {
    this.#segment = segment;
    this.#corrections = "";
    await this.recorrect();
    this.shared = segment.sections.thingIdentity.buffer as unknown as SharedArrayBuffer;
    this.versions = versions;
  }
}
