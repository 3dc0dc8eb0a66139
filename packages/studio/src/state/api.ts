import type { FormDefinition } from "@bibliotope/core/form";
import type {
  ChangeKeyAsking,
  ChangePasswordAsking,
  ChangePersonAsking,
  EarlierLookups,
  FormDraft,
  FormSummary,
  FormVersion,
  KeepLookupAsking,
  KeepRehearsalAsking,
  KeepTraceAsking,
  KeptRehearsal,
  KeptTrace,
  KeptTraceSummary,
  KeySummary,
  MadeKey,
  MakeKeyAsking,
  MakePersonAsking,
  PersonSummary,
  Problem,
  SessionAnswer,
  SignInAsking,
  UsesAnswer,
} from "@bibliotope/wire";
import { createApi, fetchBaseQuery } from "@reduxjs/toolkit/query/react";

let csrf = "";
/** What a change must carry. */
export const csrfToken = () => csrf;

/** Which use is looked at: of so many days, of one key or of all. */
export interface Uses {
  days: number;
  key: number | undefined;
}

export const usesQuery = ({ days, key }: Uses) => `days=${days}${key === undefined ? "" : `&key=${key}`}`;

/** The workbench's own calls. Changes carry the session's CSRF token. */
export const api = createApi({
  baseQuery: fetchBaseQuery({
    baseUrl: "/api",
    prepareHeaders: (headers) => (csrf ? headers.set("X-CSRF-Token", csrf) : headers),
    responseHandler: "json",
    timeout: 10_000,
  }),
  tagTypes: ["forms", "keys", "lookups", "people", "rehearsals", "session", "traces"],
  endpoints: (build) => ({
    session: build.query<SessionAnswer, void>({
      query: () => "/session",
      providesTags: ["session"],
      onQueryStarted: async (_, { queryFulfilled }) => {
        csrf = (await queryFulfilled.catch(() => undefined))?.data.csrf ?? "";
      },
    }),
    signIn: build.mutation<void, SignInAsking>({
      // not under /api, where nobody answers without a session
      query: (body) => ({ url: `${location.origin}/sign-in`, method: "POST", body }),
      invalidatesTags: ["session"],
    }),
    signOut: build.mutation<void, void>({
      query: () => ({ url: "/session", method: "DELETE", body: {} }),
      // nothing of what was seen may be left for the next one
      onQueryStarted: async (_, { queryFulfilled }) => {
        await queryFulfilled.then(
          () => location.assign("/"),
          () => undefined,
        );
      },
    }),
    changePassword: build.mutation<void, ChangePasswordAsking>({
      query: (body) => ({ url: "/password", method: "PUT", body }),
      invalidatesTags: ["session"],
    }),
    people: build.query<PersonSummary[], void>({
      query: () => "/people",
      transformResponse: (answer: { people: PersonSummary[] }) => answer.people,
      providesTags: ["people"],
    }),
    makePerson: build.mutation<void, MakePersonAsking>({
      query: (body) => ({ url: "/people", method: "POST", body }),
      invalidatesTags: ["people"],
    }),
    changePerson: build.mutation<void, { id: number; change: ChangePersonAsking }>({
      query: ({ id, change }) => ({ url: `/people/${id}`, method: "PUT", body: change }),
      invalidatesTags: ["people"],
    }),
    removePerson: build.mutation<void, number>({
      query: (id) => ({ url: `/people/${id}`, method: "DELETE", body: {} }),
      invalidatesTags: ["people"],
    }),
    forms: build.query<FormSummary[], void>({
      query: () => "/forms",
      transformResponse: (answer: { forms: FormSummary[] }) => answer.forms,
      providesTags: ["forms"],
    }),
    form: build.query<FormDraft, string>({ query: (ref) => `/forms/${encodeURIComponent(ref)}`, keepUnusedDataFor: 0 }),
    versions: build.query<FormVersion[], string>({
      query: (ref) => `/forms/${encodeURIComponent(ref)}/versions`,
      transformResponse: (answer: { versions: FormVersion[] }) => answer.versions,
      providesTags: ["forms"],
    }),
    makeForm: build.mutation<FormDraft, FormDefinition>({
      query: (definition) => ({ url: "/forms", method: "POST", body: { definition } }),
      invalidatesTags: ["forms"],
    }),
    saveDraft: build.mutation<FormDraft, { ref: string; revision: number; definition: FormDefinition }>({
      query: ({ ref, ...body }) => ({ url: `/forms/${encodeURIComponent(ref)}/draft`, method: "PUT", body }),
      invalidatesTags: ["forms"],
    }),
    publishForm: build.mutation<FormDraft, string>({
      query: (ref) => ({ url: `/forms/${encodeURIComponent(ref)}/publish`, method: "POST", body: {} }),
      invalidatesTags: ["forms"],
    }),
    rehearsals: build.query<KeptRehearsal[], string>({
      query: (ref) => `/forms/${encodeURIComponent(ref)}/rehearsals`,
      transformResponse: (answer: { rehearsals: KeptRehearsal[] }) => answer.rehearsals,
      providesTags: ["rehearsals"],
    }),
    keepRehearsal: build.mutation<void, { ref: string; rehearsal: KeepRehearsalAsking }>({
      query: ({ ref, rehearsal }) => ({
        url: `/forms/${encodeURIComponent(ref)}/rehearsals`,
        method: "POST",
        body: rehearsal,
      }),
      invalidatesTags: ["rehearsals"],
    }),
    dropRehearsal: build.mutation<void, { ref: string; id: number }>({
      query: ({ ref, id }) => ({
        url: `/forms/${encodeURIComponent(ref)}/rehearsals/${id}`,
        method: "DELETE",
        body: {},
      }),
      invalidatesTags: ["rehearsals"],
    }),
    traces: build.query<KeptTraceSummary[], string>({
      query: (ref) => `/forms/${encodeURIComponent(ref)}/traces`,
      transformResponse: (answer: { traces: KeptTraceSummary[] }) => answer.traces,
      providesTags: ["traces"],
    }),
    trace: build.query<KeptTrace, { ref: string; id: number }>({
      query: ({ ref, id }) => `/forms/${encodeURIComponent(ref)}/traces/${id}`,
    }),
    keepTrace: build.mutation<void, { ref: string; trace: KeepTraceAsking }>({
      query: ({ ref, trace }) => ({ url: `/forms/${encodeURIComponent(ref)}/traces`, method: "POST", body: trace }),
      invalidatesTags: ["traces"],
    }),
    keys: build.query<KeySummary[], void>({
      query: () => "/keys",
      transformResponse: (answer: { keys: KeySummary[] }) => answer.keys,
      providesTags: ["keys"],
    }),
    uses: build.query<UsesAnswer, Uses>({ query: (uses) => `/uses?${usesQuery(uses)}`, keepUnusedDataFor: 0 }),
    makeKey: build.mutation<MadeKey, MakeKeyAsking>({
      query: (body) => ({ url: "/keys", method: "POST", body }),
      invalidatesTags: ["keys"],
    }),
    changeKey: build.mutation<KeySummary, { id: number; rules: ChangeKeyAsking }>({
      query: ({ id, rules }) => ({ url: `/keys/${id}`, method: "PUT", body: rules }),
      invalidatesTags: ["keys"],
    }),
    replaceKey: build.mutation<MadeKey, { id: number; overlap: number }>({
      query: ({ id, overlap }) => ({ url: `/keys/${id}/replace`, method: "POST", body: { overlap } }),
      invalidatesTags: ["keys"],
    }),
    withdrawKey: build.mutation<void, number>({
      query: (id) => ({ url: `/keys/${id}`, method: "DELETE", body: {} }),
      invalidatesTags: ["keys"],
    }),
    lookups: build.query<EarlierLookups, void>({ query: () => "/lookups", providesTags: ["lookups"] }),
    keepLookup: build.mutation<void, KeepLookupAsking>({
      query: (body) => ({ url: "/lookups", method: "POST", body }),
      invalidatesTags: ["lookups"],
    }),
    forgetLookups: build.mutation<void, void>({
      query: () => ({ url: "/lookups", method: "DELETE", body: {} }),
      invalidatesTags: ["lookups"],
    }),
    keepingLookups: build.mutation<EarlierLookups, boolean>({
      query: (keeps) => ({ url: "/lookups/keeping", method: "PUT", body: { keeps } }),
      invalidatesTags: ["lookups"],
    }),
  }),
});

export const {
  useSessionQuery,
  useSignInMutation,
  useSignOutMutation,
  useChangePasswordMutation,
  usePeopleQuery,
  useMakePersonMutation,
  useChangePersonMutation,
  useRemovePersonMutation,
  useFormsQuery,
  useFormQuery,
  useVersionsQuery,
  useMakeFormMutation,
  usePublishFormMutation,
  useSaveDraftMutation,
  useLookupsQuery,
  useKeepLookupMutation,
  useForgetLookupsMutation,
  useKeepingLookupsMutation,
  useRehearsalsQuery,
  useKeepRehearsalMutation,
  useDropRehearsalMutation,
  useTracesQuery,
  useTraceQuery,
  useKeysQuery,
  useMakeKeyMutation,
  useChangeKeyMutation,
  useReplaceKeyMutation,
  useUsesQuery,
  useWithdrawKeyMutation,
} = api;

/** What to tell the person about a call that failed. */
export function wordsOf(error: unknown): string {
  const { status, data } = (error ?? {}) as { status?: number | string; data?: Problem };
  if (data?.detail) return data.detail;
  if (status === "FETCH_ERROR" || status === "TIMEOUT_ERROR")
    return "The server does not answer. Is npm start still running?";
  return "Something broke on our side. Try again.";
}
