import { CssBaseline, ThemeProvider } from "@mui/material";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { lazy, Suspense, useMemo } from "react";
import { BrowserRouter, Navigate, Route, Routes } from "react-router";

import { Entry } from "../features/entry/Entry";
import { ExportProvider } from "../features/exports/ExportProvider";
import { Today } from "../features/today/Today";
import { Loading } from "../shared/Loading";
import { makeTheme } from "../theme/theme";
import { ModeContext, useMode } from "../theme/useMode";
import { RoomHost } from "../features/room/host";
import { Shell } from "./Shell";
import { NoticeProvider } from "./notices";
import { UploadProvider } from "../features/today/uploads";

const Record = lazy(() => import("../features/record/Record"));
const Room = lazy(() => import("../features/room/Room"));
const Captions = lazy(() => import("../features/room/Captions"));
const Archive = lazy(() => import("../features/archive/Archive"));
const TopicMap = lazy(() => import("../features/map/TopicMap"));
const Floor = lazy(() => import("../features/floor/Floor"));
const Excerpts = lazy(() => import("../features/excerpts/Excerpts"));
const Compilation = lazy(() => import("../features/compilations/Compilation"));
const Setup = lazy(() => import("../features/setup/Setup"));
const Account = lazy(() => import("../features/account/Account"));
const Nowhere = lazy(() => import("../features/nowhere/Nowhere"));
const About = lazy(() => import("../features/about/About"));

const queries = new QueryClient({
  defaultOptions: { queries: { retry: 1, refetchOnWindowFocus: false, staleTime: 5000 } },
});

/** The application: theme, session, and the views by their addresses. */
export function App() {
  const mode = useMode();
  const theme = useMemo(() => makeTheme(mode.mode), [mode.mode]);
  return (
    <ModeContext value={mode}>
      <ThemeProvider theme={theme}>
        <CssBaseline />
        <QueryClientProvider client={queries}>
          <NoticeProvider>
            <BrowserRouter>
              <Entry>
                <UploadProvider>
                  <ExportProvider>
                    <RoomHost>
                      <Suspense fallback={<Loading what="the page" />}>
                        <Routes>
                          <Route element={<Shell />}>
                            <Route index element={<Today />} />
                            <Route path="archive" element={<Archive />} />
                            <Route path="excerpts" element={<Excerpts />} />
                            <Route path="compilations/:compilationId" element={<Compilation />} />
                            <Route path="setup/:part?" element={<Setup />} />
                            <Route path="account" element={<Account />} />
                            <Route path="about" element={<About />} />
                            <Route path="meetings/:meetingId" element={<Record />} />
                            <Route path="meetings/:meetingId/map" element={<TopicMap />} />
                            <Route path="meetings/:meetingId/floor" element={<Floor />} />
                            <Route path="meetings/:meetingId/room" element={<Room />} />
                            <Route path="forgotten" element={<Navigate to="/" replace />} />
                            <Route path="*" element={<Nowhere />} />
                          </Route>
                          <Route path="meetings/:meetingId/captions" element={<Captions />} />
                        </Routes>
                      </Suspense>
                    </RoomHost>
                  </ExportProvider>
                </UploadProvider>
              </Entry>
            </BrowserRouter>
          </NoticeProvider>
        </QueryClientProvider>
      </ThemeProvider>
    </ModeContext>
  );
}
