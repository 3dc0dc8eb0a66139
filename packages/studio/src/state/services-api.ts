import type { Service } from "@bibliotope/core/service";
import type { AllowedHost } from "@bibliotope/wire";
import { api } from "./api.ts";
import { own } from "./own.ts";

const byName = (name: string) => ({ parts: { name } });

/** Calls about outside services, their secrets, and where they may be called. */
const servicesApi = api.enhanceEndpoints({ addTagTypes: ["services"] }).injectEndpoints({
  endpoints: (build) => ({
    services: build.query({ ...own("services", undefined, ({ services }) => services), providesTags: ["services"] }),
    service: build.query({ ...own("service", byName), providesTags: ["services"] }),
    saveService: build.mutation({
      ...own("saveService", (asks: { service: Service; revision?: number }) => ({
        parts: { name: asks.service.name },
        asks,
      })),
      invalidatesTags: ["services"],
    }),
    dropService: build.mutation({ ...own("dropService", byName), invalidatesTags: ["services"] }),
    tryService: build.mutation({
      ...own("tryService", (asks: { service: Service; inputs: Record<string, string> }) => ({
        parts: { name: asks.service.name },
        asks,
      })),
      invalidatesTags: ["services"],
    }),
    readWsdl: build.mutation(own("readWsdl", (wsdl: string) => ({ asks: { wsdl } }))),
    secrets: build.query({ ...own("secrets", undefined, ({ secrets }) => secrets), providesTags: ["services"] }),
    setSecret: build.mutation({
      ...own("setSecret", ({ name, value }: { name: string; value: string }) => ({ parts: { name }, asks: { value } })),
      invalidatesTags: ["services"],
    }),
    dropSecret: build.mutation({ ...own("dropSecret", byName), invalidatesTags: ["services"] }),
    hosts: build.query({ ...own("hosts", undefined, ({ hosts }) => hosts), providesTags: ["services"] }),
    allowHost: build.mutation({
      ...own("allowHost", (asks: Omit<AllowedHost, "id" | "standIn">) => ({ asks })),
      invalidatesTags: ["services"],
    }),
    refuseHost: build.mutation({
      ...own("refuseHost", (id: number) => ({ parts: { id } })),
      invalidatesTags: ["services"],
    }),
  }),
});

export const {
  useServicesQuery,
  useServiceQuery,
  useSaveServiceMutation,
  useDropServiceMutation,
  useTryServiceMutation,
  useReadWsdlMutation,
  useSecretsQuery,
  useSetSecretMutation,
  useDropSecretMutation,
  useHostsQuery,
  useAllowHostMutation,
  useRefuseHostMutation,
} = servicesApi;
