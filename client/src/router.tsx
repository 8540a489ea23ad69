import { createBrowserRouter } from "react-router";

import { Shell } from "./Shell";
import { Broken } from "./ui/Broken";
import { say } from "./texts/say";

const Waiting = () => <p className="page quiet">{say("common.loading")}</p>;

export const router = createBrowserRouter([
  {
    path: "/look/:token",
    HydrateFallback: Waiting,
    errorElement: <Broken />,
    lazy: async () => ({ Component: (await import("./features/signin/Look")).Look }),
  },
  {
    path: "/reset/:who/:token",
    HydrateFallback: Waiting,
    errorElement: <Broken />,
    lazy: async () => ({ Component: (await import("./features/signin/Reset")).Reset }),
  },
  {
    path: "/",
    element: <Shell />,
    HydrateFallback: Waiting,
    errorElement: <Broken />,
    children: [
      {
        // a page that fails leaves the room around it
        errorElement: <Broken />,
        children: [
          {
            index: true,
            lazy: async () => ({ Component: (await import("./features/plot/FirstGarden")).FirstGarden }),
          },
          {
            path: "gardens/:gardenId",
            lazy: async () => ({ Component: (await import("./features/plot/PlotPage")).PlotPage }),
          },
          {
            path: "gardens/:gardenId/beds/:bedKey/new",
            lazy: async () => ({ Component: (await import("./features/support/NewSupport")).NewSupport }),
          },
          {
            path: "gardens/:gardenId/parts",
            lazy: async () => ({
              Component: (await import("./features/parts/GardenPartsPage")).GardenPartsPage,
            }),
          },
          {
            path: "gardens/:gardenId/week",
            lazy: async () => ({ Component: (await import("./features/season/WeekPage")).WeekPage }),
          },
          {
            path: "gardens/:gardenId/year",
            lazy: async () => ({ Component: (await import("./features/season/YearPage")).YearPage }),
          },
          {
            path: "gardens/:gardenId/log",
            lazy: async () => ({ Component: (await import("./features/log/LogPage")).LogPage }),
          },
          {
            path: "gardens/:gardenId/lessons",
            lazy: async () => ({ Component: (await import("./features/log/LessonsPage")).LessonsPage }),
          },
          {
            path: "gardens/:gardenId/years",
            lazy: async () => ({ Component: (await import("./features/log/YearsPage")).YearsPage }),
          },
          {
            path: "gardens/:gardenId/shed",
            lazy: async () => ({ Component: (await import("./features/shed/ShedPage")).ShedPage }),
          },
          {
            path: "gardens/:gardenId/history",
            lazy: async () => ({ Component: (await import("./features/history/HistoryPage")).HistoryPage }),
          },
          {
            path: "gardens/:gardenId/files",
            lazy: async () => ({ Component: (await import("./features/files/FilesPage")).FilesPage }),
          },
          {
            path: "gardens/:gardenId/people",
            lazy: async () => ({ Component: (await import("./features/people/PeoplePage")).PeoplePage }),
          },
          {
            path: "structures/:structureId",
            lazy: async () => ({ Component: (await import("./features/bench/BenchPage")).BenchPage }),
          },
          {
            path: "structures/:structureId/parts",
            lazy: async () => ({ Component: (await import("./features/parts/PartsPage")).PartsPage }),
          },
          {
            path: "structures/:structureId/life",
            lazy: async () => ({ Component: (await import("./features/log/LifePage")).LifePage }),
          },
          {
            path: "structures/:structureId/build",
            lazy: async () => ({ Component: (await import("./features/build/BuildPage")).BuildPage }),
          },
          {
            path: "account",
            lazy: async () => ({ Component: (await import("./features/account/AccountPage")).AccountPage }),
          },
          {
            path: "method",
            lazy: async () => ({ Component: (await import("./features/method/MethodPage")).MethodPage }),
          },
          { path: "*", lazy: async () => ({ Component: (await import("./ui/NotHere")).NotHere }) },
        ],
      },
    ],
  },
]);
