import { createBrowserRouter, Navigate, type RouteObject } from 'react-router';
import { Failure } from './frame/failure';
import { SCREENS, type ScreenRow } from './screens';
import { ShelfScreen } from './shelf/shelf-screen';

const routesOf = ({ paths, load }: ScreenRow): RouteObject[] =>
  paths.map(path => ({
    ...(path === '' ? { index: true as const } : { path }),
    lazy: { Component: load },
  }));

/** Every screen has an address, and is fetched when it is first seen. */
export const router = createBrowserRouter([
  { path: '/', element: <ShelfScreen />, errorElement: <Failure /> },
  {
    path: '/:systemId',
    lazy: { Component: async () => (await import('./frame/system-frame')).SystemFrame },
    errorElement: <Failure />,
    hydrateFallbackElement: <></>,
    children: SCREENS.flatMap(routesOf),
  },
  { path: '*', element: <Navigate to="/" replace /> },
]);
