import type {
  FileAnswer,
  JobSummary,
  LookAtFileRequest,
  MakeLoadRequest,
  OwnAnswer,
  Problem,
  PublishRequest,
} from "@bibliotope/wire";
import { api, byId } from "./api.ts";
import { callUrl, own } from "./own.ts";

const isUnderWay = ({ state }: JobSummary) => state === "waiting" || state === "running";

/** Calls about data: what is stored and imported, and the work that takes long. */
export const dataApi = api.enhanceEndpoints({ addTagTypes: ["data"] }).injectEndpoints({
  endpoints: (build) => ({
    jobs: build.query({
      ...own("jobs", undefined, ({ jobs }) => jobs),
      // news come by themselves, as long as somebody looks
      onCacheEntryAdded: async (
        _,
        { updateCachedData, cacheDataLoaded, cacheEntryRemoved, dispatch, getCacheEntry },
      ) => {
        await cacheDataLoaded.catch(() => undefined);
        const events = new EventSource(callUrl("jobEvents", {}));
        events.onmessage = ({ data }) => {
          const { jobs } = JSON.parse(data) as OwnAnswer<"jobs">;
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
    steerJob: build.mutation(
      own("steerJob", (parts: { id: number; to: "paused" | "cancelled" | "resumed" }) => ({ parts })),
    ),
    data: build.query({ ...own("data"), providesTags: ["data"] }),
    inspectFile: build.mutation(
      own("inspectFile", ({ file, params: request }: { file: string; params: LookAtFileRequest }) => ({
        parts: { id: file },
        asks: request,
      })),
    ),
    makeLoad: build.mutation(own("makeLoad", (asks: MakeLoadRequest) => ({ asks }))),
    publishData: build.mutation(own("publishData", (asks: PublishRequest) => ({ asks }))),
    dropVersion: build.mutation({ ...own("dropVersion", byId), invalidatesTags: ["data"] }),
    oddRows: build.query(
      own("oddRows", ({ version, kind }: { version: number; kind: string }) => ({
        parts: { id: version },
        asks: { kind },
      })),
    ),
    liveCoverage: build.query({ ...own("liveCoverage"), providesTags: ["data"] }),
    coverage: build.query(
      own("coverage", ({ version, beside }: { version: number; beside?: number }) => ({
        parts: { id: version },
        asks: { beside },
      })),
    ),
    difference: build.query(
      own("difference", ({ from, to }: { from: number; to: number }) => ({ parts: { id: to }, asks: { from } })),
    ),
  }),
});

export const {
  useJobsQuery,
  useSteerJobMutation,
  useDataQuery,
  useInspectFileMutation,
  useMakeLoadMutation,
  usePublishDataMutation,
  useDropVersionMutation,
  useOddRowsQuery,
  useDifferenceQuery,
  useCoverageQuery,
  useLiveCoverageQuery,
} = dataApi;

/** Hands a file in. Not by fetch, which does not tell how far it is. @param progress hears the share that is sent */
export function sendFile(
  file: File,
  csrf: string,
  progress: (share: number) => void,
  stop: AbortSignal,
): Promise<FileAnswer> {
  return new Promise((resolve, reject) => {
    const request = new XMLHttpRequest();
    const url = callUrl("handIn", { asks: { name: file.name } });
    request.open("POST", url);
    request.setRequestHeader("X-CSRF-Token", csrf);
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
