import type { Routes } from '@angular/router';
import { sheetRoutes } from './sheets';

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
    path: 'practice',
    title: 'Practice bench · Hot Spline',
    loadComponent: () => import('./practice/practice-page').then((m) => m.PracticePage),
  },
  {
    path: 'builds/:id',
    loadComponent: () => import('./frame/build-page').then((m) => m.BuildPage),
    children: [
      { path: '', pathMatch: 'full', loadComponent: () => import('./frame/landing').then((m) => m.Landing) },
      ...sheetRoutes(),
    ],
  },
  { path: '**', redirectTo: '' },
];
