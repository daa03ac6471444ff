import { computed, inject, Injectable, signal } from '@angular/core';
import { linkSchema, sessionSchema, type Link, type LinkUse, type PasswordChange, type Session, type SignIn, type StudioCreate } from '@zelpit/contract';
import { firstValueFrom, map, shareReplay, tap, type Observable } from 'rxjs';
import { ApiService } from '../api/api.service';
import { SessionToken } from './session-token';

/** Who sits here. */
@Injectable({ providedIn: 'root' })
export class SessionService {
  private readonly api = inject(ApiService);
  private readonly token = inject(SessionToken);
  private readonly current = signal<Session | undefined>(undefined);
  private first?: Promise<Session>;

  readonly signedIn = computed(() => this.current()?.signedIn ?? undefined);
  readonly person = computed(() => this.signedIn()?.person);
  readonly studio = computed(() => this.signedIn()?.studio);
  readonly role = computed(() => this.signedIn()?.role);
  readonly isOwner = computed(() => this.role() === 'owner');
  readonly demo = computed(() => this.current()?.demo ?? undefined);
  readonly hasOutbox = computed(() => this.current()?.hasOutbox ?? false);
  readonly canCreateStudio = computed(() => this.current()?.canCreateStudio ?? false);

  /** The session as the server knows it, asked once. */
  load(): Promise<Session> {
    this.first ??= firstValueFrom(this.keep(this.api.get('/api/session', sessionSchema))).catch((error: unknown) => {
      this.first = undefined;
      throw error;
    });
    return this.first;
  }

  signIn(input: SignIn): Observable<Session> {
    return this.keep(this.api.post('/api/session', input, sessionSchema));
  }

  createStudio(input: StudioCreate): Observable<Session> {
    return this.keep(this.api.post('/api/studios', input, sessionSchema));
  }

  lookAtLink(token: string): Observable<Link> {
    return this.api.post('/api/links/look', { token }, linkSchema);
  }

  takeLink(input: LinkUse): Observable<Session> {
    return this.keep(this.api.post('/api/links/take', input, sessionSchema));
  }

  askReset(email: string): Observable<void> {
    return this.api.send('POST', '/api/account/reset', { email });
  }

  signOut(): Observable<void> {
    return this.keep(this.api.remove('/api/session', sessionSchema)).pipe(map(() => undefined));
  }

  /** Sets a new password; the sessions on other computers end. */
  changePassword(input: PasswordChange): Observable<void> {
    return this.api.send('PUT', '/api/account/password', input);
  }

  /** Ends all sessions, this one too. */
  signOutEverywhere(): Observable<void> {
    return this.api.send('DELETE', '/api/account/sessions').pipe(tap(() => this.expire()));
  }

  /** The studio under its new name. */
  renamed(name: string): void {
    const session = this.current();
    if (session?.signedIn != null) this.current.set({ ...session, signedIn: { ...session.signedIn, studio: { ...session.signedIn.studio, name } } });
  }

  /** Forgets the session after the server said that it has ended. */
  expire(): void {
    this.first = undefined;
    this.current.set(undefined);
  }

  private keep(answer: Observable<Session>): Observable<Session> {
    return answer.pipe(
      tap((session) => {
        this.current.set(session);
        this.token.value = session.token;
        this.first = Promise.resolve(session);
      }),
      shareReplay(1),
    );
  }
}
