import {
  isDevMode,
  provideBrowserGlobalErrorListeners,
  type ApplicationConfig,
  provideZonelessChangeDetection,
} from '@angular/core';
import { provideRouter, withComponentInputBinding, withInMemoryScrolling } from '@angular/router';
import { provideServiceWorker } from '@angular/service-worker';
import { provideEffects } from '@ngrx/effects';
import { provideState, provideStore } from '@ngrx/store';
import { MessageService } from 'primeng/api';
import { providePrimeNG } from 'primeng/config';
import { routes } from './app.routes';
import { providersOf } from './sheets';
import { boardFeature } from './state/board';
import { editorFeature } from './state/editor';
import * as effects from './state/effects';
import { libraryFeature, loadLibrary, putAwaySpec, settleSpec, writeSpec } from './state/library-slice';
import { lookingFeature } from './state/looking';
import { uiFeature } from './state/ui';
import { houseTheme } from './theme';

export const appConfig: ApplicationConfig = {
  providers: [
    provideZonelessChangeDetection(),
    provideBrowserGlobalErrorListeners(),
    provideRouter(routes, withComponentInputBinding(), withInMemoryScrolling({ scrollPositionRestoration: 'enabled' })),
    provideStore(),
    provideState(boardFeature),
    provideState(editorFeature),
    provideState(uiFeature),
    provideState(lookingFeature),
    provideState(libraryFeature),
    provideEffects(effects, { loadLibrary, writeSpec, settleSpec, putAwaySpec }),
    providePrimeNG({
      theme: { preset: houseTheme, options: { darkModeSelector: '.night', cssLayer: false } },
      ripple: false,
    }),
    MessageService,
    providersOf(),
    provideServiceWorker('ngsw-worker.js', { enabled: !isDevMode(), registrationStrategy: 'registerWhenStable:10000' }),
  ],
};
