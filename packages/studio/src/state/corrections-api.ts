import type { CorrectAsking, CorrectionSummary, DecideCorrectionAsking } from "@bibliotope/wire";
import { dataApi } from "./data-api.ts";

/** Calls about records that are changed by hand. */
const correctionsApi = dataApi.enhanceEndpoints({ addTagTypes: ["corrections"] }).injectEndpoints({
  endpoints: (build) => ({
    corrections: build.query<CorrectionSummary[], void>({
      query: () => "/corrections",
      transformResponse: (answer: { corrections: CorrectionSummary[] }) => answer.corrections,
      providesTags: ["corrections"],
    }),
    makeCorrection: build.mutation<{ id: number }, CorrectAsking>({
      query: (body) => ({ url: "/corrections", method: "POST", body }),
      invalidatesTags: ["corrections"],
    }),
    decideCorrection: build.mutation<void, { id: number } & DecideCorrectionAsking>({
      query: ({ id, ...body }) => ({ url: `/corrections/${id}`, method: "PUT", body }),
      invalidatesTags: ["corrections"],
    }),
  }),
});

export const { useCorrectionsQuery, useMakeCorrectionMutation, useDecideCorrectionMutation } = correctionsApi;
