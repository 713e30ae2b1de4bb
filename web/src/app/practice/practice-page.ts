import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { FORMAT_VERSION } from '@hot-spline/model';
import { PRACTICE_LESSONS, practiceBuild } from '@hot-spline/model/practice';
import { Header } from '../frame/header';
import { constructionWords } from '../library/words';
import { Field } from '../shared/field';
import { countReader } from '../shared/readers';
import { Outbox } from '../state/outbox';
import { newId } from '../base/new-id';

/** The practice bench: set lessons, and any axle by its seed. */
@Component({
  selector: 'hs-practice-page',
  imports: [Field, Header, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <hs-header title="Practice bench" />
    <main>
      <p>
        Made-up axles behind the same sheets and simulated gauges: strip one, set it up, sign it. At the end the truth
        is shown, beside the rule of thumb and the advisor. <a routerLink="/">Board</a>
      </p>
      @if (problem(); as p) {
        <p class="caution" role="alert">{{ p }}</p>
      }
      <ul>
        @for (lesson of lessons; track lesson.id) {
          <li>
            <h2>{{ lesson.title }}</h2>
            <p>{{ lesson.teaches }}</p>
            <p class="soft">{{ lesson.construction ? words(lesson.construction) : 'A gearbox of two shafts' }}</p>
            <button
              type="button"
              class="quiet"
              [disabled]="busy()"
              (click)="start(lesson.id, 0)"
              [attr.aria-label]="'Start: ' + lesson.title"
            >
              Start
            </button>
          </li>
        }
        <li>
          <h2>Any axle</h2>
          <p>By its seed: the same number is the same axle, for whoever tries it.</p>
          <hs-field
            name="practice-seed"
            label="Seed"
            [text]="'' + seed()"
            [read]="readSeed"
            mode="numeric"
            [compact]="true"
            (taken)="seed.set($event)"
          />
          <button type="button" class="quiet" [disabled]="busy()" (click)="start(null, seed())">Start this axle</button>
        </li>
      </ul>
    </main>
  `,
  styles: `
    main {
      max-width: 1080px;
      margin: 0 auto;
      padding: 16px;
    }
    main > p {
      margin-bottom: 14px;
    }
    ul {
      display: grid;
      grid-template-columns: repeat(auto-fill, minmax(290px, 1fr));
      gap: 12px;
    }
    li {
      display: grid;
      gap: 6px;
      align-content: start;
      justify-items: start;
      padding: 12px 14px;
      background: var(--sheet);
      border: 1px solid var(--rule);
      border-radius: var(--radius);
      font-size: var(--text-s);
    }
    h2 {
      font-size: var(--text-m);
    }
    button {
      min-height: 44px;
      min-width: 110px;
      margin-top: auto;
    }
  `,
})
export class PracticePage {
  private readonly router = inject(Router);
  private readonly outbox = inject(Outbox);
  protected readonly lessons = PRACTICE_LESSONS;
  protected readonly words = constructionWords;
  protected readonly seed = signal(1 + Math.floor(Math.random() * 9999));
  protected readonly readSeed = countReader('Seed', 0, 999_999);
  protected readonly busy = signal(false);
  protected readonly problem = signal('');

  protected async start(lesson: string | null, seed: number): Promise<void> {
    this.busy.set(true);
    this.problem.set('');
    try {
      const id = newId();
      const build = practiceBuild({ lesson, seed });
      await this.outbox.putNew(id, {
        format: 'hot-spline/build-file',
        formatVersion: FORMAT_VERSION,
        build,
        ledger: [],
      });
      await this.router.navigate(['/builds', id, 'practice']);
    } catch (error) {
      this.problem.set(`Not started: ${error instanceof Error ? error.message : String(error)}`);
    } finally {
      this.busy.set(false);
    }
  }
}
