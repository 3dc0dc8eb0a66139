import { createBrowserRouter, Navigate } from "react-router";
import { Spread } from "./forms/Spread.tsx";
import { BrokenView } from "./frame/BrokenView.tsx";
import { Frame } from "./frame/Frame.tsx";
import { NothingHere } from "./frame/NothingHere.tsx";
import { Opening } from "./frame/Opening.tsx";
import { RehearseView } from "./rehearse/RehearseView.tsx";
import { BASE_PATH } from "./state/service-url.ts";

/** The first start opens straight into a sample form, ready to type in. */
const FIRST_FORM = "/forms/become-a-reader/rehearse";

export const router = createBrowserRouter(
  [
    {
      element: <Frame />,
      ErrorBoundary: BrokenView,
      HydrateFallback: Opening,
      children: [
        {
          // a view that fails leaves the header in place
          ErrorBoundary: BrokenView,
          children: [
            { path: "/", element: <Navigate to={FIRST_FORM} replace /> },
            { path: "/forms", lazy: async () => ({ Component: (await import("./forms/FormList.tsx")).FormList }) },
            {
              path: "/forms/:ref",
              element: <Spread />,
              children: [
                { index: true, element: <Navigate to="rehearse" replace /> },
                { path: "rehearse", element: <RehearseView /> },
                {
                  path: "compose",
                  lazy: async () => ({ Component: (await import("./compose/ComposeView.tsx")).ComposeView }),
                },
                {
                  path: "take-away",
                  lazy: async () => ({ Component: (await import("./take-away/TakeAwayView.tsx")).TakeAwayView }),
                },
              ],
            },
            {
              path: "/lookups/*",
              lazy: async () => ({ Component: (await import("./lookups/LookupsView.tsx")).LookupsView }),
            },
            { path: "/data", lazy: async () => ({ Component: (await import("./data/DataRoom.tsx")).DataRoom }) },
            {
              path: "/data/import",
              lazy: async () => ({ Component: (await import("./data/ImportView.tsx")).ImportView }),
            },
            {
              path: "/data/corrections",
              lazy: async () => ({ Component: (await import("./data/CorrectionsView.tsx")).CorrectionsView }),
            },
            {
              path: "/data/versions/:id",
              lazy: async () => ({ Component: (await import("./data/VersionView.tsx")).VersionView }),
            },
            {
              path: "/batches",
              lazy: async () => ({ Component: (await import("./batches/BatchesView.tsx")).BatchesView }),
            },
            {
              path: "/batches/new",
              lazy: async () => ({ Component: (await import("./batches/NewBatchView.tsx")).NewBatchView }),
            },
            {
              path: "/batches/:id",
              lazy: async () => ({ Component: (await import("./batches/ReviewView.tsx")).ReviewView }),
            },
            {
              path: "/values",
              lazy: async () => ({ Component: (await import("./values/ValuesView.tsx")).ValuesView }),
            },
            {
              path: "/services",
              lazy: async () => ({ Component: (await import("./services/ServicesView.tsx")).ServicesView }),
            },
            {
              path: "/services/:name",
              lazy: async () => ({ Component: (await import("./services/ServiceView.tsx")).ServiceView }),
            },
            { path: "/keys", lazy: async () => ({ Component: (await import("./keys/KeysView.tsx")).KeysView }) },
            {
              path: "/pieces/:piece?",
              lazy: async () => ({ Component: (await import("./pieces/PiecesView.tsx")).PiecesView }),
            },
            { path: "*", element: <NothingHere /> },
          ],
        },
      ],
    },
  ],
  { basename: BASE_PATH || "/" },
);
