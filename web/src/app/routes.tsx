import { Outlet, useRouteError, type RouteObject } from 'react-router';
import { EventFrame } from './EventFrame.tsx';
import { PlainFrame } from '../ui/PlainFrame.tsx';
import { Empty, Failed, Loading } from '../ui/states.tsx';
import { BoardsPage } from '../features/boards/BoardsPage.tsx';
import { NewBoardPage } from '../features/boards/NewBoardPage.tsx';
import { SettingsPage } from '../features/settings/SettingsPage.tsx';
import { CatchPage } from '../features/catch/CatchPage.tsx';
import { EventPage } from '../features/event/EventPage.tsx';
import { EventsPage } from '../features/event/EventsPage.tsx';
import { NewEventPage } from '../features/event/NewEventPage.tsx';
import { AlikePage } from '../features/judge/AlikePage.tsx';
import { JudgePage } from '../features/judge/JudgePage.tsx';
import { QueuePage } from '../features/judge/QueuePage.tsx';
import { JustDecidedProvider } from '../features/judge/justDecided.tsx';
import { LedgerPage } from '../features/ledger/LedgerPage.tsx';
import { AcceptPage } from '../features/pair/AcceptPage.tsx';
import { PairPage } from '../features/pair/PairPage.tsx';
import { PreparePage } from '../features/prepare/PreparePage.tsx';
import { RulesPage } from '../features/rules/RulesPage.tsx';
import { StandingsPage } from '../features/standings/StandingsPage.tsx';
import { WaterPage } from '../features/water/WaterPage.tsx';
import { WatersPage } from '../features/waters/WatersPage.tsx';
import { InsecureNote } from '../offline/InsecureNote.tsx';
import { UpdateNote } from '../offline/UpdateNote.tsx';
import { OutboxRunner } from './OutboxRunner.tsx';
import { AccountPage } from '../features/people/AccountPage.tsx';
import { InvitationPage, RenewalPage, SetUpPage } from '../features/people/NewAccountPages.tsx';
import { PeoplePage } from '../features/people/PeoplePage.tsx';
import { SignInDialog } from '../features/people/SignInDialog.tsx';
import { SignInPage } from '../features/people/SignInPage.tsx';

function Root() {
  return (
    <>
      <InsecureNote />
      <Outlet />
      <SignInDialog />
      <OutboxRunner />
      <UpdateNote />
    </>
  );
}

function BrokenPage() {
  const error = useRouteError();
  return (
    <PlainFrame title="Something went wrong">
      <Failed error={error} retry={() => location.reload()} />
    </PlainFrame>
  );
}

function NoSuchPage() {
  return (
    <PlainFrame title="Nothing here">
      <Empty title="There is no such page.">
        <a className="linklike" href="/">
          To the events
        </a>
      </Empty>
    </PlainFrame>
  );
}

export const routes: RouteObject[] = [
  {
    element: <Root />,
    errorElement: <BrokenPage />,
    HydrateFallback: () => <Loading what="Opening" />,
    children: [
      { path: '/', element: <EventsPage /> },
      { path: '/sign-in', element: <SignInPage /> },
      { path: '/set-up', element: <SetUpPage /> },
      { path: '/invitation/:token', element: <InvitationPage /> },
      { path: '/renewal/:token', element: <RenewalPage /> },
      { path: '/account', element: <AccountPage /> },
      { path: '/pair/:token', element: <AcceptPage /> },
      { path: '/events/new', element: <NewEventPage /> },
      {
        path: '/events/:eventId',
        element: <EventFrame />,
        children: [
          { index: true, element: <EventPage /> },
          { path: 'rules', element: <RulesPage /> },
          { path: 'boards', element: <BoardsPage /> },
          { path: 'boards/new', element: <NewBoardPage /> },
          { path: 'people', element: <PeoplePage /> },
          { path: 'prepare', element: <PreparePage /> },
          { path: 'water', element: <WaterPage /> },
          {
            path: 'well',
            // With the statistics of the cull, which nobody needs who keeps no fish.
            lazy: async () => ({ Component: (await import('../features/well/WellPage.tsx')).WellPage }),
          },
          {
            path: 'well/water',
            lazy: async () => ({
              Component: (await import('../features/well/WellWaterPage.tsx')).WellWaterPage,
            }),
          },
          {
            path: 'weigh-in',
            lazy: async () => ({
              Component: (await import('../features/weigh-in/WeighInPage.tsx')).WeighInPage,
            }),
          },
          {
            path: 'specimens',
            lazy: async () => ({
              Component: (await import('../features/specimen/SpecimenPage.tsx')).SpecimenPage,
            }),
          },
          { path: 'waters', element: <WatersPage /> },
          { path: 'pair', element: <PairPage /> },
          { path: 'catches/:catchId', element: <CatchPage /> },
          {
            path: 'judge',
            element: (
              <JustDecidedProvider>
                <Outlet />
              </JustDecidedProvider>
            ),
            children: [
              { index: true, element: <QueuePage /> },
              { path: ':catchId', element: <JudgePage /> },
              { path: ':catchId/alike/:otherId', element: <AlikePage /> },
            ],
          },
          { path: 'settings', element: <SettingsPage /> },
          { path: 'standings', element: <StandingsPage /> },
          { path: 'records', element: <LedgerPage /> },
        ],
      },
      { path: '*', element: <NoSuchPage /> },
    ],
  },
];
