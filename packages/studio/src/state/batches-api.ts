import type { DecideRequest, MakeBatchRequest, RowStatus } from "@bibliotope/wire";
import { byId } from "./api.ts";
import { dataApi } from "./data-api.ts";
import { own } from "./own.ts";

/** Calls about batches and their review. */
const batchesApi = dataApi.enhanceEndpoints({ addTagTypes: ["batches"] }).injectEndpoints({
  endpoints: (build) => ({
    batches: build.query({ ...own("batches", undefined, ({ batches }) => batches), providesTags: ["batches"] }),
    batch: build.query({ ...own("batch", byId), providesTags: ["batches"] }),
    makeBatch: build.mutation({
      ...own("makeBatch", (asks: MakeBatchRequest) => ({ asks })),
      invalidatesTags: ["batches"],
    }),
    dropBatch: build.mutation({ ...own("dropBatch", byId), invalidatesTags: ["batches"] }),
    batchRows: build.query(
      own(
        "batchRows",
        ({ batch, ...asks }: { batch: number; show: RowStatus | "all"; offset: number }) => ({
          parts: { id: batch },
          asks,
        }),
        ({ rows }) => rows,
      ),
    ),
    batchRow: build.query(
      own("batchRow", ({ batch, number, text }: { batch: number; number: number; text?: string }) => ({
        parts: { id: batch, number },
        asks: { text },
      })),
    ),
    decideRow: build.mutation({
      ...own(
        "decideRow",
        ({ batch, number, decision }: { batch: number; number: number; decision: DecideRequest }) => ({
          parts: { id: batch, number },
          asks: decision,
        }),
      ),
      invalidatesTags: ["batches"],
    }),
    takeBack: build.mutation({ ...own("takeBack", byId), invalidatesTags: ["batches"] }),
    batchPoints: build.query(own("batchPoints", byId)),
    batchValues: build.query(
      own("batchValues", ({ id, column }: { id: number; column: number }) => ({ parts: { id }, asks: { column } })),
    ),
  }),
});

export const {
  useBatchesQuery,
  useBatchQuery,
  useMakeBatchMutation,
  useDropBatchMutation,
  useBatchRowsQuery,
  useBatchRowQuery,
  useDecideRowMutation,
  useTakeBackMutation,
  useBatchPointsQuery,
  useBatchValuesQuery,
  usePrefetch: usePrefetchBatch,
} = batchesApi;
