import type { Routes } from '@angular/router';
import { sheetRoutes } from './sheets';
import { onlyIn } from './state/session';

export const routes: Routes = [
  {
    path: '',
    pathMatch: 'full',
    title: 'Builds · Hot Spline',
    canActivate: [onlyIn],
    loadComponent: () => import('./board/board-page').then((m) => m.BoardPage),
  },
  {
    path: 'library',
    title: 'Library · Hot Spline',
    canActivate: [onlyIn],
    loadComponent: () => import('./library/library-page').then((m) => m.LibraryPage),
  },
  {
    path: 'practice',
    title: 'Practice bench · Hot Spline',
    canActivate: [onlyIn],
    loadComponent: () => import('./practice/practice-page').then((m) => m.PracticePage),
  },
  {
    path: 'builds/:id',
    canActivate: [onlyIn],
    loadComponent: () => import('./frame/build-page').then((m) => m.BuildPage),
    children: [
      { path: '', pathMatch: 'full', loadComponent: () => import('./frame/landing').then((m) => m.Landing) },
      ...sheetRoutes(),
    ],
  },
  {
    path: 'people',
    title: 'People · Hot Spline',
    canActivate: [onlyIn],
    loadComponent: () => import('./people/people-page').then((m) => m.PeoplePage),
  },
  {
    path: 'sign-in',
    title: 'Sign in · Hot Spline',
    loadComponent: () => import('./people/sign-in-page').then((m) => m.SignInPage),
  },
  {
    path: 'invited',
    title: 'Invited · Hot Spline',
    loadComponent: () => import('./people/invited-page').then((m) => m.InvitedPage),
  },
  { path: '**', redirectTo: '' },
];
