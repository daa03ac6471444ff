import { Injectable, signal } from '@angular/core';

export type Theme = 'system' | 'light' | 'dark';
const storageKey = 'zelpit.theme';

/** Light or dark, as the system says unless somebody chose. */
@Injectable({ providedIn: 'root' })
export class ThemeService {
  private readonly system = matchMedia('(prefers-color-scheme: dark)');
  readonly theme = signal<Theme>(stored());

  constructor() {
    this.system.addEventListener('change', () => this.apply());
    this.apply();
  }

  choose(theme: Theme): void {
    this.theme.set(theme);
    localStorage.setItem(storageKey, theme);
    this.apply();
  }

  private apply(): void {
    const chosen = this.theme();
    const isDark = chosen === 'dark' || (chosen === 'system' && this.system.matches);
    document.documentElement.dataset['bsTheme'] = isDark ? 'dark' : 'light';
  }
}

function stored(): Theme {
  const value = localStorage.getItem(storageKey);
  return value === 'light' || value === 'dark' ? value : 'system';
}
