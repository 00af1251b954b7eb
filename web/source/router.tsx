import { createBrowserRouter, Navigate } from 'react-router';
import { AnatomyScreen } from './anatomy/anatomy-screen';
import { BehaviourScreen } from './behaviour/behaviour-screen';
import { ComponentScreen } from './component/component-screen';
import { FieldsScreen } from './fields/fields-screen';
import { LineupScreen } from './fields/lineup-screen';
import { ContentScreen } from './content/content-screen';
import { Failure } from './frame/failure';
import { SystemFrame } from './frame/system-frame';
import { GuideScreen } from './guide/guide-screen';
import { IconsScreen } from './icons/icons-screen';
import { NewFieldScreen } from './making/new-field-screen';
import { OutputsScreen } from './outputs/outputs-screen';
import { RulesScreen } from './rules/rules-screen';
import { ShelfScreen } from './shelf/shelf-screen';
import { SpaceScreen } from './space/space-screen';
import { TokensScreen } from './tokens/tokens-screen';
import { TrialsScreen } from './trials/trials-screen';

/** Every screen has an address. The names of the book's parts cannot be component ids, which come last. */
export const router = createBrowserRouter([
  { path: '/', element: <ShelfScreen />, errorElement: <Failure /> },
  {
    path: '/:systemId',
    element: <SystemFrame />,
    errorElement: <Failure />,
    children: [
      { index: true, element: <FieldsScreen /> },
      { path: 'icons', element: <IconsScreen /> },
      { path: 'lineup', element: <LineupScreen /> },
      { path: 'new', element: <NewFieldScreen /> },
      { path: 'tokens', element: <TokensScreen /> },
      { path: 'trials', element: <TrialsScreen /> },
      { path: 'trials/:trialId', element: <TrialsScreen /> },
      { path: 'guide', element: <GuideScreen /> },
      { path: 'guide/:componentId', element: <GuideScreen /> },
      { path: 'outputs', element: <OutputsScreen /> },
      { path: ':componentId', element: <ComponentScreen /> },
      { path: ':componentId/anatomy', element: <AnatomyScreen /> },
      { path: ':componentId/behaviour', element: <BehaviourScreen /> },
      { path: ':componentId/content', element: <ContentScreen /> },
      { path: ':componentId/space', element: <SpaceScreen /> },
      { path: ':componentId/rules', element: <RulesScreen /> },
    ],
  },
  { path: '*', element: <Navigate to="/" replace /> },
]);
