import type {
  CoverageAnswer,
  DataAnswer,
  FileAnswer,
  FileStart,
  JobSummary,
  LookAtFileAsking,
  MakeLoadAsking,
  OddRows,
  Problem,
  PublishAsking,
  VersionDifference,
} from "@bibliotope/wire";
import { api, csrfToken } from "./api.ts";

const isUnderWay = ({ state }: JobSummary) => state === "waiting" || state === "running";

/** Calls about data: what is held and brought, and the work that takes long. */
export const dataApi = api.enhanceEndpoints({ addTagTypes: ["data"] }).injectEndpoints({
  endpoints: (build) => ({
    jobs: build.query<JobSummary[], void>({
      query: () => "/jobs",
      transformResponse: (answer: { jobs: JobSummary[] }) => answer.jobs,
      // news come by themselves, as long as somebody looks
      onCacheEntryAdded: async (
        _,
        { updateCachedData, cacheDataLoaded, cacheEntryRemoved, dispatch, getCacheEntry },
      ) => {
        await cacheDataLoaded.catch(() => undefined);
        const events = new EventSource("/api/jobs/events");
        events.onmessage = ({ data }) => {
          const { jobs } = JSON.parse(data) as { jobs: JobSummary[] };
          const before =
            getCacheEntry()
              .data?.filter(isUnderWay)
              .map(({ id }) => id) ?? [];
          updateCachedData(() => jobs);
          if (jobs.some((job) => before.includes(job.id) && !isUnderWay(job)))
            dispatch(dataApi.util.invalidateTags(["data"]));
        };
        await cacheEntryRemoved;
        events.close();
      },
    }),
    steerJob: build.mutation<void, { id: number; to: "paused" | "cancelled" | "resumed" }>({
      query: ({ id, to }) => ({ url: `/jobs/${id}/${to}`, method: "POST", body: {} }),
    }),
    data: build.query<DataAnswer, void>({ query: () => "/data", providesTags: ["data"] }),
    lookAtFile: build.mutation<FileStart, { file: string; asked: LookAtFileAsking }>({
      query: ({ file, asked }) => ({ url: `/files/${file}/look`, method: "POST", body: asked }),
    }),
    makeLoad: build.mutation<{ job: number }, MakeLoadAsking>({
      query: (body) => ({ url: "/loads", method: "POST", body }),
    }),
    publishData: build.mutation<{ job: number }, PublishAsking>({
      query: (body) => ({ url: "/publications", method: "POST", body }),
    }),
    dropVersion: build.mutation<void, number>({
      query: (id) => ({ url: `/versions/${id}`, method: "DELETE", body: {} }),
      invalidatesTags: ["data"],
    }),
    oddRows: build.query<OddRows, { version: number; kind: string }>({
      query: ({ version, kind }) => `/versions/${version}/rows?kind=${encodeURIComponent(kind)}`,
    }),
    coverage: build.query<CoverageAnswer, { version: number; beside?: number }>({
      query: ({ version, beside }) => ({
        url: `/versions/${version}/coverage${beside ? `?beside=${beside}` : ""}`,
        timeout: 120_000,
      }),
    }),
    difference: build.query<VersionDifference, { from: number; to: number }>({
      query: ({ from, to }) => ({ url: `/versions/${to}/difference?from=${from}`, timeout: 120_000 }),
    }),
  }),
});

export const {
  useJobsQuery,
  useSteerJobMutation,
  useDataQuery,
  useLookAtFileMutation,
  useMakeLoadMutation,
  usePublishDataMutation,
  useDropVersionMutation,
  useOddRowsQuery,
  useDifferenceQuery,
  useCoverageQuery,
} = dataApi;

/** Hands a file in. Not by fetch, which does not tell how far it is. @param progress hears the share that is sent */
export function sendFile(file: File, progress: (share: number) => void, stop: AbortSignal): Promise<FileAnswer> {
  return new Promise((resolve, reject) => {
    const request = new XMLHttpRequest();
    request.open("POST", `/api/files?name=${encodeURIComponent(file.name)}`);
    request.setRequestHeader("X-CSRF-Token", csrfToken());
    request.setRequestHeader("Content-Type", "application/octet-stream");
    request.responseType = "json";
    request.upload.onprogress = ({ loaded, total }) => progress(total ? loaded / total : 0);
    request.onload = () =>
      request.status < 300
        ? resolve(request.response as FileAnswer)
        : reject({ status: request.status, data: request.response as Problem });
    request.onerror = () => reject({ status: "FETCH_ERROR" });
    request.onabort = () => reject({ status: "STOPPED" });
    stop.addEventListener("abort", () => request.abort());
    request.send(file);
  });
}
