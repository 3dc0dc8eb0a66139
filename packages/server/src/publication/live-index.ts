import { Engine } from "@bibliotope/core/search";
import type { Knex } from "knex";
import { livePublication } from "./publication.repository.ts";
import type { SegmentStore } from "./segment-store.ts";

/** The index that answers lookups now. Swapped in whole; a lookup under way keeps the one it began with. */
export class LiveIndex {
  engine: Engine | undefined;
  #publication = 0;
  #refreshing: Promise<void> | undefined;

  constructor(
    private readonly database: Knex,
    private readonly store: SegmentStore,
    private readonly progress: (read: number, total: number) => void = () => undefined,
    private readonly swapped: (versions: number[]) => Promise<void> = async () => undefined,
  ) {}

  /** Looks whether something newer is published, and opens it. Calls while one runs share it. */
  refresh(): Promise<void> {
    this.#refreshing ??= this.#open().finally(() => {
      this.#refreshing = undefined;
    });
    return this.#refreshing;
  }

  async #open(): Promise<void> {
    const publication = await livePublication(this.database);
    if (!publication || publication.id === this.#publication) return;
    const segment = await this.store.segmentFor(publication.versions, this.progress);
    await this.swapped(publication.versions);
    this.engine = new Engine(segment);
    this.#publication = publication.id;
    await this.store.sweep(segment.meta.name);
  }
}
