import type { Routes } from '@angular/router';

export const routes: Routes = [
  {
    path: '',
    pathMatch: 'full',
    title: 'Builds · Hot Spline',
    loadComponent: () => import('./board/board-page').then((m) => m.BoardPage),
  },
  {
    path: 'library',
    title: 'Library · Hot Spline',
    loadComponent: () => import('./library/library-page').then((m) => m.LibraryPage),
  },
  {
    path: 'builds/:id',
    loadComponent: () => import('./frame/build-page').then((m) => m.BuildPage),
    children: [
      { path: '', pathMatch: 'full', redirectTo: 'gearing' },
      { path: 'brief', loadComponent: () => import('./identity/brief-sheet').then((m) => m.BriefSheet) },
      { path: 'road', loadComponent: () => import('./road/road-sheet').then((m) => m.RoadSheet) },
      { path: 'sets', loadComponent: () => import('./road/sets-sheet').then((m) => m.SetsSheet) },
      { path: 'engine', loadComponent: () => import('./point/engine-sheet').then((m) => m.EngineSheet) },
      { path: 'gearing', loadComponent: () => import('./gearing/gearing-sheet').then((m) => m.GearingSheet) },
      { path: 'unit', loadComponent: () => import('./unit/unit-sheet').then((m) => m.UnitSheet) },
      { path: 'pack', loadComponent: () => import('./pack/pack-sheet').then((m) => m.PackSheet) },
      { path: 'ledger', loadComponent: () => import('./ledger/ledger-sheet').then((m) => m.LedgerSheet) },
    ],
  },
  { path: '**', redirectTo: '' },
];
