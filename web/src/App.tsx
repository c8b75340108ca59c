import { Loader, MantineProvider } from "@mantine/core";
import { Notifications } from "@mantine/notifications";
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { lazy, Suspense } from "react";
import { BrowserRouter, Navigate, Outlet, Route, Routes } from "react-router";
import { ReviewLayout } from "./review/ReviewLayout";
import { ReviewsPage } from "./reviews/ReviewsPage";
import { AskReset, UndoAddress, Invitation, ProviderFailed, Reset, Verify } from "./session/Links";
import { SignIn } from "./session/SignIn";
import { ApiProblem } from "./shared/api/client";
import { useSession } from "./shared/api/queries";
import { Problems } from "./shared/Problems";
import { SheetPage } from "./stages/sheet/SheetPage";
import { theme } from "./theme";
import { strings } from "./strings";

const AccountPage = lazy(() => import("./account/AccountPage"));
const OfficePage = lazy(() => import("./account/OfficePage"));
const LibraryPage = lazy(() => import("./library/LibraryPage"));
const ProfilesPage = lazy(() => import("./profiles/ProfilesPage"));
const MailPage = lazy(() => import("./account/MailPage"));
const BriefPage = lazy(() => import("./stages/brief/BriefPage"));
const ExhibitsPage = lazy(() => import("./stages/exhibits/ExhibitsPage"));
const GroundPage = lazy(() => import("./stages/ground/GroundPage"));
const SpectrumPage = lazy(() => import("./stages/spectrum/SpectrumPage"));
const LateralPage = lazy(() => import("./stages/lateral/LateralPage"));
const WeightPage = lazy(() => import("./stages/weight/WeightPage"));
const FramePage = lazy(() => import("./stages/frame/FramePage"));
const ModesPage = lazy(() => import("./stages/modes/ModesPage"));
const ScalingPage = lazy(() => import("./stages/scaling/ScalingPage"));
const TwistPage = lazy(() => import("./stages/twist/TwistPage"));
const DriftPage = lazy(() => import("./stages/drift/DriftPage"));
const WhatIfPage = lazy(() => import("./stages/whatif/WhatIfPage"));
const RequirementsPage = lazy(() => import("./stages/requirements/RequirementsPage"));
const AcrossPage = lazy(() => import("./stages/across/AcrossPage"));
const RoundsPage = lazy(() => import("./stages/rounds/RoundsPage"));
const AuditPage = lazy(() => import("./stages/audit/AuditPage"));
const FindingsPage = lazy(() => import("./stages/findings/FindingsPage"));
const ReportPage = lazy(() => import("./stages/report/ReportPage"));

const client = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 30_000,
      refetchOnWindowFocus: false,
      // what the server has refused it will refuse again; only a lost connection is worth another try
      retry: (count, error) => count < 2 && error instanceof ApiProblem && error.status === 0,
    },
  },
});

function SignedIn() {
  const session = useSession();
  if (session.isPending) return <Loader m="xl" size="sm" />;
  if (session.error)
    return (
      <div className="page">
        <Problems error={session.error} title={strings.notLoaded} />
      </div>
    );
  return session.data.person ? <Outlet /> : <SignIn />;
}

export function App() {
  return (
    <MantineProvider theme={theme} defaultColorScheme="auto">
      <QueryClientProvider client={client}>
        <Notifications position="bottom-left" autoClose={4000} />
        <BrowserRouter>
          <Suspense fallback={<Loader m="xl" size="sm" />}>
            <Routes>
              {/* what a link of a mail leads to is there for anyone who holds the link */}
              <Route path="/account/reset" element={<AskReset />} />
              <Route path="/account/reset/:key" element={<Reset />} />
              <Route path="/account/verify/:key" element={<Verify />} />
              <Route path="/account/undo/:key" element={<UndoAddress />} />
              <Route path="/account/provider" element={<ProviderFailed />} />
              <Route path="/invitation/:key" element={<Invitation />} />
              <Route path="/mail" element={<MailPage />} />
              <Route element={<SignedIn />}>
                <Route path="/" element={<ReviewsPage />} />
                <Route path="/account" element={<AccountPage />} />
                <Route path="/office" element={<OfficePage />} />
                <Route path="/library" element={<LibraryPage />} />
                <Route path="/profiles" element={<ProfilesPage />} />
                <Route path="/reviews/:id" element={<ReviewLayout />}>
                  <Route index element={<Navigate to="sheet" replace />} />
                  <Route path="sheet" element={<SheetPage />} />
                  <Route path="brief" element={<BriefPage />} />
                  <Route path="exhibits" element={<ExhibitsPage />} />
                  <Route path="ground" element={<GroundPage />} />
                  <Route path="spectrum" element={<SpectrumPage />} />
                  <Route path="weight" element={<WeightPage />} />
                  <Route path="frame" element={<FramePage />} />
                  <Route path="modes" element={<ModesPage />} />
                  <Route path="lateral" element={<LateralPage />} />
                  <Route path="scaling" element={<ScalingPage />} />
                  <Route path="twist" element={<TwistPage />} />
                  <Route path="drift" element={<DriftPage />} />
                  <Route path="across" element={<AcrossPage />} />
                  <Route path="what-if" element={<WhatIfPage />} />
                  <Route path="requirements" element={<RequirementsPage />} />
                  <Route path="rounds" element={<RoundsPage />} />
                  <Route path="audit" element={<AuditPage />} />
                  <Route path="findings" element={<FindingsPage />} />
                  <Route path="report" element={<ReportPage />} />
                </Route>
                <Route path="*" element={<Navigate to="/" replace />} />
              </Route>
            </Routes>
          </Suspense>
        </BrowserRouter>
      </QueryClientProvider>
    </MantineProvider>
  );
}
