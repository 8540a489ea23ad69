import { createBrowserRouter } from "react-router";

import { Shell } from "./ui/Shell";

const Waiting = () => <p className="page quiet">One moment…</p>;

export const router = createBrowserRouter([
  {
    path: "/",
    element: <Shell />,
    HydrateFallback: Waiting,
    children: [
      { index: true, lazy: async () => ({ Component: (await import("./features/garden/FirstGarden")).FirstGarden }) },
      { path: "gardens/:gardenId", lazy: async () => ({ Component: (await import("./features/garden/GardenPage")).GardenPage }) },
      { path: "gardens/:gardenId/beds/:bedId/new", lazy: async () => ({ Component: (await import("./features/garden/NewFence")).NewFence }) },
      { path: "structures/:structureId", lazy: async () => ({ Component: (await import("./features/bench/BenchPage")).BenchPage }) },
      { path: "structures/:structureId/parts", lazy: async () => ({ Component: (await import("./features/parts/PartsPage")).PartsPage }) },
      { path: "*", lazy: async () => ({ Component: (await import("./ui/NotHere")).NotHere }) },
    ],
  },
]);
