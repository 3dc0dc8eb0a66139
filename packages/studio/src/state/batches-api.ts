import type {
  BatchCandidates,
  BatchDetail,
  BatchPoints,
  BatchRow,
  BatchSummary,
  DecideAsking,
  MakeBatchAsking,
  Standing,
} from "@bibliotope/wire";
import { dataApi } from "./data-api.ts";

const rowPath = (batch: number, number: number) => `/batches/${batch}/rows/${number}`;

/** Calls about batches and their review. */
const batchesApi = dataApi.enhanceEndpoints({ addTagTypes: ["batches"] }).injectEndpoints({
  endpoints: (build) => ({
    batches: build.query<BatchSummary[], void>({
      query: () => "/batches",
      transformResponse: (answer: { batches: BatchSummary[] }) => answer.batches,
      providesTags: ["batches"],
    }),
    batch: build.query<BatchDetail, number>({ query: (id) => `/batches/${id}`, providesTags: ["batches"] }),
    makeBatch: build.mutation<{ batch: number; job: number }, MakeBatchAsking>({
      query: (body) => ({ url: "/batches", method: "POST", body }),
      invalidatesTags: ["batches"],
    }),
    dropBatch: build.mutation<void, number>({
      query: (id) => ({ url: `/batches/${id}`, method: "DELETE", body: {} }),
      invalidatesTags: ["batches"],
    }),
    batchRows: build.query<BatchRow[], { batch: number; show: Standing | "all"; offset: number }>({
      query: ({ batch, show, offset }) => `/batches/${batch}/rows?show=${show}&offset=${offset}`,
      transformResponse: (answer: { rows: BatchRow[] }) => answer.rows,
    }),
    batchRow: build.query<BatchCandidates, { batch: number; number: number; text?: string }>({
      query: ({ batch, number, text }) =>
        `${rowPath(batch, number)}${text === undefined ? "" : `?text=${encodeURIComponent(text)}`}`,
    }),
    decideRow: build.mutation<void, { batch: number; number: number; decision: DecideAsking }>({
      query: ({ batch, number, decision }) => ({
        url: `${rowPath(batch, number)}/decision`,
        method: "POST",
        body: decision,
      }),
      invalidatesTags: ["batches"],
    }),
    takeBack: build.mutation<{ number: number }, number>({
      query: (batch) => ({ url: `/batches/${batch}/back`, method: "POST", body: {} }),
      invalidatesTags: ["batches"],
    }),
    batchPoints: build.query<BatchPoints, number>({ query: (id) => `/batches/${id}/points` }),
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
  usePrefetch: usePrefetchBatch,
} = batchesApi;
