import type { FormDefinition } from "@bibliotope/core/form";
import type {
  AgainRequest,
  ChangeKeyRequest,
  ChangePasswordRequest,
  ChangePersonRequest,
  KeepLookupRequest,
  KeepPasskeyRequest,
  KeepRehearsalRequest,
  KeepTraceRequest,
  KeptFor,
  MakeKeyRequest,
  MakePersonRequest,
  PasskeySignInRequest,
  Problem,
  SignInRequest,
} from "@bibliotope/wire";
import { createApi, fetchBaseQuery } from "@reduxjs/toolkit/query/react";
import { own } from "./own.ts";
import { BASE_PATH, SERVICE_URL } from "./service-url.ts";

/** Which use is looked at: of so many days, of one key or of all. */
export interface Uses {
  days: number;
  key: number | undefined;
}

export const byId = (id: number) => ({ parts: { id } });
const byRef = (ref: string) => ({ parts: { ref } });
const partOfForm = (parts: { ref: string; id: number }) => ({ parts });

/** The workbench's own calls. Changes carry the session's CSRF token. */
export const api = createApi({
  baseQuery: fetchBaseQuery({
    baseUrl: `${BASE_PATH}/api`,
    prepareHeaders: (headers, { getState }) => {
      const { csrf } = getState() as { csrf: string };
      if (csrf) headers.set("X-CSRF-Token", csrf);
    },
    responseHandler: "json",
    timeout: 10_000,
  }),
  tagTypes: [
    "forms",
    "keys",
    "link-key",
    "lookups",
    "people",
    "rehearsals",
    "retention",
    "second-factor",
    "session",
    "sessions",
    "traces",
  ],
  endpoints: (build) => ({
    session: build.query({ ...own("session"), providesTags: ["session"] }),
    signIn: build.mutation<void, SignInRequest>({
      // not under /api, where nobody answers without a session
      query: (body) => ({ url: `${SERVICE_URL}/sign-in`, method: "POST", body }),
      invalidatesTags: ["session"],
    }),
    askSignInPasskey: build.mutation<{ options: Record<string, unknown> }, void>({
      query: () => ({ url: `${SERVICE_URL}/sign-in/passkey/options`, method: "POST", body: {} }),
    }),
    signInByPasskey: build.mutation<void, PasskeySignInRequest>({
      query: (body) => ({ url: `${SERVICE_URL}/sign-in/passkey`, method: "POST", body }),
      invalidatesTags: ["session"],
    }),
    secondFactor: build.query({ ...own("secondFactor"), providesTags: ["second-factor"] }),
    beginCodes: build.mutation({ ...own("beginCodes", (asks: AgainRequest) => ({ asks })) }),
    confirmCodes: build.mutation({
      ...own("confirmCodes", (asks: { code: string }) => ({ asks })),
      invalidatesTags: ["second-factor", "sessions", "people"],
    }),
    dropCodes: build.mutation({
      ...own("dropCodes", (asks: AgainRequest) => ({ asks })),
      invalidatesTags: ["second-factor", "people"],
    }),
    askPasskey: build.mutation({ ...own("askPasskey", (asks: AgainRequest) => ({ asks })) }),
    keepPasskey: build.mutation({
      ...own("keepPasskey", (asks: KeepPasskeyRequest) => ({ asks })),
      invalidatesTags: ["second-factor", "people"],
    }),
    dropPasskey: build.mutation({
      ...own("dropPasskey", ({ id, asks }: { id: string; asks: AgainRequest }) => ({ parts: { id }, asks })),
      invalidatesTags: ["second-factor", "people"],
    }),
    signOut: build.mutation({
      ...own("signOut"),
      // nothing of what was seen may be left for the next one
      onQueryStarted: async (_, { queryFulfilled }) => {
        await queryFulfilled.then(
          () => location.assign(`${BASE_PATH}/`),
          () => undefined,
        );
      },
    }),
    changePassword: build.mutation({
      ...own("changePassword", (asks: ChangePasswordRequest) => ({ asks })),
      invalidatesTags: ["session"],
    }),
    people: build.query({ ...own("people", undefined, ({ people }) => people), providesTags: ["people"] }),
    makePerson: build.mutation({
      ...own("makePerson", (asks: MakePersonRequest) => ({ asks })),
      invalidatesTags: ["people"],
    }),
    changePerson: build.mutation({
      ...own("changePerson", ({ id, change }: { id: number; change: ChangePersonRequest }) => ({
        parts: { id },
        asks: change,
      })),
      invalidatesTags: ["people"],
    }),
    removePerson: build.mutation({ ...own("removePerson", byId), invalidatesTags: ["people"] }),
    forms: build.query({ ...own("forms", undefined, ({ forms }) => forms), providesTags: ["forms"] }),
    form: build.query({ ...own("form", byRef), keepUnusedDataFor: 0 }),
    versions: build.query({ ...own("versions", byRef, ({ versions }) => versions), providesTags: ["forms"] }),
    makeForm: build.mutation({
      ...own("makeForm", (definition: FormDefinition) => ({ asks: { definition } })),
      invalidatesTags: ["forms"],
    }),
    saveDraft: build.mutation({
      ...own("saveDraft", ({ ref, ...asks }: { ref: string; revision: number; definition: FormDefinition }) => ({
        parts: { ref },
        asks,
      })),
      invalidatesTags: ["forms"],
    }),
    publishForm: build.mutation({
      ...own("publishForm", ({ ref, revision }: { ref: string; revision: number }) => ({
        parts: { ref },
        asks: { revision },
      })),
      invalidatesTags: ["forms"],
    }),
    rehearsals: build.query({
      ...own("rehearsals", byRef, ({ rehearsals }) => rehearsals),
      providesTags: ["rehearsals"],
    }),
    keepRehearsal: build.mutation({
      ...own("keepRehearsal", ({ ref, rehearsal }: { ref: string; rehearsal: KeepRehearsalRequest }) => ({
        parts: { ref },
        asks: rehearsal,
      })),
      invalidatesTags: ["rehearsals"],
    }),
    dropRehearsal: build.mutation({ ...own("dropRehearsal", partOfForm), invalidatesTags: ["rehearsals"] }),
    traces: build.query({ ...own("traces", byRef, ({ traces }) => traces), providesTags: ["traces"] }),
    trace: build.query(own("trace", partOfForm)),
    keepTrace: build.mutation({
      ...own("keepTrace", ({ ref, trace }: { ref: string; trace: KeepTraceRequest }) => ({
        parts: { ref },
        asks: trace,
      })),
      invalidatesTags: ["traces"],
    }),
    sessions: build.query({ ...own("sessions", undefined, ({ sessions }) => sessions), providesTags: ["sessions"] }),
    endOtherSessions: build.mutation({ ...own("endOtherSessions"), invalidatesTags: ["sessions"] }),
    retention: build.query({ ...own("retention", undefined, ({ kept }) => kept), providesTags: ["retention"] }),
    setRetention: build.mutation({
      ...own("setRetention", ({ what, days }: KeptFor) => ({ parts: { what }, asks: { days } })),
      invalidatesTags: ["retention"],
    }),
    linkKey: build.query({ ...own("linkKey"), providesTags: ["link-key"] }),
    renewLinkKey: build.mutation({
      ...own("renewLinkKey", (asks: { endsOld: boolean }) => ({ asks })),
      invalidatesTags: ["link-key"],
    }),
    keys: build.query({ ...own("keys", undefined, ({ keys }) => keys), providesTags: ["keys"] }),
    uses: build.query({ ...own("uses", (asks: Uses) => ({ asks })), keepUnusedDataFor: 0 }),
    makeKey: build.mutation({ ...own("makeKey", (asks: MakeKeyRequest) => ({ asks })), invalidatesTags: ["keys"] }),
    changeKey: build.mutation({
      ...own("changeKey", ({ id, rules }: { id: number; rules: ChangeKeyRequest }) => ({ parts: { id }, asks: rules })),
      invalidatesTags: ["keys"],
    }),
    replaceKey: build.mutation({
      ...own("replaceKey", ({ id, overlap }: { id: number; overlap: number }) => ({
        parts: { id },
        asks: { overlap },
      })),
      invalidatesTags: ["keys"],
    }),
    withdrawKey: build.mutation({ ...own("withdrawKey", byId), invalidatesTags: ["keys"] }),
    lookups: build.query({ ...own("lookups"), providesTags: ["lookups"] }),
    keepLookup: build.mutation({
      ...own("keepLookup", (asks: KeepLookupRequest) => ({ asks })),
      invalidatesTags: ["lookups"],
    }),
    forgetLookups: build.mutation({ ...own("forgetLookups"), invalidatesTags: ["lookups"] }),
    keepingLookups: build.mutation({
      ...own("keepingLookups", (keeps: boolean) => ({ asks: { keeps } })),
      invalidatesTags: ["lookups"],
    }),
  }),
});

export const {
  useSessionQuery,
  useSignInMutation,
  useAskSignInPasskeyMutation,
  useSignInByPasskeyMutation,
  useSecondFactorQuery,
  useBeginCodesMutation,
  useConfirmCodesMutation,
  useDropCodesMutation,
  useAskPasskeyMutation,
  useKeepPasskeyMutation,
  useDropPasskeyMutation,
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
  useSessionsQuery,
  useEndOtherSessionsMutation,
  useRetentionQuery,
  useSetRetentionMutation,
  useLinkKeyQuery,
  useRenewLinkKeyMutation,
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
  return "Something went wrong on our side. Try again.";
}

/** Which parameters of a request were wrong, where a call names them. */
export const issuesOf = (error: unknown): NonNullable<Problem["issues"]> =>
  ((error ?? {}) as { data?: Problem }).data?.issues ?? [];
