import type { CorrectRequest, DecideCorrectionRequest } from "@bibliotope/wire";
import { dataApi } from "./data-api.ts";
import { own } from "./own.ts";

/** Calls about records that are changed by hand. */
const correctionsApi = dataApi.enhanceEndpoints({ addTagTypes: ["corrections"] }).injectEndpoints({
  endpoints: (build) => ({
    corrections: build.query({
      ...own("corrections", undefined, ({ corrections }) => corrections),
      providesTags: ["corrections"],
    }),
    makeCorrection: build.mutation({
      ...own("makeCorrection", (asks: CorrectRequest) => ({ asks })),
      invalidatesTags: ["corrections"],
    }),
    decideCorrection: build.mutation({
      ...own("decideCorrection", ({ id, ...asks }: { id: number } & DecideCorrectionRequest) => ({
        parts: { id },
        asks,
      })),
      invalidatesTags: ["corrections"],
    }),
  }),
});

export const { useCorrectionsQuery, useMakeCorrectionMutation, useDecideCorrectionMutation } = correctionsApi;
