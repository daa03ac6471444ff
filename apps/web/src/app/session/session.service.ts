import { computed, inject, Injectable, signal } from '@angular/core';
import { sessionSchema, type PasswordChange, type Session, type SignIn } from '@zelpit/contract';
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

  readonly teacher = computed(() => this.current()?.signedIn?.teacher);
  readonly studio = computed(() => this.current()?.signedIn?.studio);
  readonly demo = computed(() => this.current()?.demo ?? undefined);

  /** The session as the server knows it, asked once. */
  load(): Promise<Session> {
    this.first ??= firstValueFrom(this.keep(this.api.get('/api/session', sessionSchema))).catch((error: unknown) => {
      this.first = undefined;
      throw error;
    });
    return this.first;
  }

  isSignedIn(): Promise<boolean> {
    return this.load().then(() => this.current()?.signedIn != null);
  }

  signIn(input: SignIn): Observable<Session> {
    return this.keep(this.api.post('/api/session', input, sessionSchema));
  }

  signOut(): Observable<void> {
    return this.keep(this.api.remove('/api/session', sessionSchema)).pipe(map(() => undefined));
  }

  /** Sets a new password; the sessions on other computers end. */
  changePassword(input: PasswordChange): Observable<void> {
    return this.api.sendBody('PUT', '/api/account/password', input);
  }

  /** Ends all sessions, this one too. */
  signOutEverywhere(): Observable<void> {
    return this.api.send('DELETE', '/api/account/sessions').pipe(tap(() => this.expire()));
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
      }),
      shareReplay(1),
    );
  }
}
