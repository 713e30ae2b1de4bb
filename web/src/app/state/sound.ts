import { Injectable, InjectionToken, inject } from '@angular/core';
import { Store } from '@ngrx/store';
import { uiActions, uiFeature } from './ui';

/** What makes a sound; tests give a stand-in. */
export interface Speaker {
  /** Aloud, by a voice of this device alone; nothing where it has none. */
  say(text: string): void;
  tone(hertz: readonly number[]): void;
}

const TONE_S = 0.09;

class BrowserSpeaker implements Speaker {
  private audio: AudioContext | null = null;

  say(text: string): void {
    const { speechSynthesis: speech } = globalThis;
    // Voices of a network would send what is said elsewhere: those of the device only.
    const own = speech?.getVoices().filter(({ localService }) => localService) ?? [];
    const voice = own.find(({ lang }) => lang.startsWith('en')) ?? own[0];
    if (!voice) return;
    const words = new SpeechSynthesisUtterance(text);
    words.voice = voice;
    speech.cancel();
    speech.speak(words);
  }

  tone(hertz: readonly number[]): void {
    if (!('AudioContext' in globalThis)) return;
    this.audio ??= new AudioContext();
    hertz.forEach((pitch, i) => {
      const audio = this.audio as AudioContext;
      const [from, voice, level] = [audio.currentTime + i * TONE_S * 1.4, audio.createOscillator(), audio.createGain()];
      voice.frequency.value = pitch;
      level.gain.setValueAtTime(0.15, from);
      level.gain.exponentialRampToValueAtTime(0.001, from + TONE_S);
      voice.connect(level).connect(audio.destination);
      voice.start(from);
      voice.stop(from + TONE_S);
    });
  }
}

export const SPEAKER = new InjectionToken<Speaker>('speaker', { factory: () => new BrowserSpeaker() });

/** Sound where hands and eyes are busy: off until somebody switches it on, on this device. */
@Injectable({ providedIn: 'root' })
export class Sound {
  private readonly store = inject(Store);
  private readonly speaker = inject(SPEAKER);
  readonly on = this.store.selectSignal(uiFeature.selectSound);

  flip(): void {
    this.store.dispatch(uiActions.soundFlipped());
  }

  say(text: string): void {
    if (this.on()) this.speaker.say(text);
  }

  /** A reading is taken. */
  taken(): void {
    if (this.on()) this.speaker.tone([880]);
  }

  /** It comes near to what is wanted: the next step is a small one. */
  near(): void {
    if (this.on()) this.speaker.tone([660, 990]);
  }
}
