import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { App, ConfigProvider, Spin } from "antd";
import { lazy, StrictMode, Suspense } from "react";
import { createRoot } from "react-dom/client";
import { createBrowserRouter, RouterProvider } from "react-router";
import { problemOf } from "./api/client";
import { SettingsProvider, useSettings } from "./settings";
import { Broken } from "./shell/Broken";
import { Shell } from "./shell/Shell";
import { themeOf } from "./theme";
import "./theme.css";

const StartPage = lazy(() => import("./start/StartPage"));
const AccountPage = lazy(() => import("./account/AccountPage"));
const BookPage = lazy(() => import("./book/BookPage"));
const EveningsPage = lazy(() => import("./evenings/EveningsPage"));
const PeoplePage = lazy(() => import("./people/PeoplePage"));
const PersonPage = lazy(() => import("./people/PersonPage"));
const NewGarmentPage = lazy(() => import("./garment/NewGarmentPage"));
const RailPage = lazy(() => import("./rail/RailPage"));
const GarmentPage = lazy(() => import("./work/GarmentPage"));
const FittingPage = lazy(() => import("./tryon/FittingPage"));
const LargePage = lazy(() => import("./tryon/LargePage"));
const GuestPage = lazy(() => import("./tryon/GuestPage"));
const CardPage = lazy(() => import("./card/CardPage"));
const NotFound = lazy(() => import("./shell/NotFound"));

const router = createBrowserRouter([
  {
    errorElement: <Broken />,
    children: [
      // The whole screen belongs to the try-on.
      { path: "/garments/:garment/fitting/:tryOn", element: <FittingPage /> },
      { path: "/garments/:garment/large/:tryOn", element: <LargePage /> },
      { path: "/join/:code?", element: <GuestPage /> },
      {
        element: <Shell />,
        children: [
          { path: "/", element: <StartPage /> },
          { path: "/rail", element: <RailPage /> },
          { path: "/account", element: <AccountPage /> },
          { path: "/book", element: <BookPage /> },
          { path: "/evenings", element: <EveningsPage /> },
          { path: "/people", element: <PeoplePage /> },
          { path: "/people/:wearer", element: <PersonPage /> },
          { path: "/garments/new", element: <NewGarmentPage /> },
          { path: "/garments/:garment/cards/:change", element: <CardPage /> },
          { path: "/garments/:garment/:stage?", element: <GarmentPage /> },
          { path: "*", element: <NotFound /> },
        ],
      },
    ],
  },
]);

const queries = new QueryClient({
  defaultOptions: {
    queries: {
      // What is wrong with a request does not mend itself; what did not answer may.
      retry: (count, error) => problemOf(error).status === 0 && count < 3,
      staleTime: 10_000,
    },
  },
});

function Themed() {
  const { dark } = useSettings();
  return (
    <ConfigProvider theme={themeOf(dark)} button={{ autoInsertSpace: false }}>
      <App component={false}>
        <Suspense fallback={<Spin fullscreen description="Opening" />}>
          <RouterProvider router={router} />
        </Suspense>
      </App>
    </ConfigProvider>
  );
}

const root = document.getElementById("root");
if (!root) throw new Error("#root is missing");
createRoot(root).render(
  <StrictMode>
    <QueryClientProvider client={queries}>
      <SettingsProvider>
        <Themed />
      </SettingsProvider>
    </QueryClientProvider>
  </StrictMode>,
);
