import { computed, inject, Injectable, signal } from '@angular/core';
import {
  accountRoutes,
  sessionRoutes,
  type InHand,
  type Link,
  type LinkUse,
  type PasswordChange,
  type Session,
  type SignIn,
  type StudioCreate,
} from '@zelpit/contract';
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
  /** Whose unsent work it is: a person's in one studio, so that it goes into no other. */
  readonly workOwner = computed(() => {
    const signedIn = this.signedIn();
    return signedIn === undefined ? undefined : `${signedIn.person.id} ${signedIn.studio.id}`;
  });
  readonly inHand = computed(() => this.signedIn()?.inHand ?? undefined);
  /** A student's own: that they may be recorded. */
  readonly consent = computed(() => this.signedIn()?.consent ?? undefined);
  readonly role = computed(() => this.signedIn()?.role);
  /** A student or a parent: they see their own pages only. */
  readonly isFamily = computed(() => this.role() === 'student' || this.role() === 'parent');
  readonly isOwner = computed(() => this.role() === 'owner');
  readonly demo = computed(() => this.current()?.demo ?? undefined);
  readonly hasOutbox = computed(() => this.current()?.hasOutbox ?? false);
  readonly canCreateStudio = computed(() => this.current()?.canCreateStudio ?? false);

  /** The session as the server knows it, asked once. */
  load(): Promise<Session> {
    this.first ??= firstValueFrom(this.keep(this.api.call(sessionRoutes.session, {}))).catch((error: unknown) => {
      this.first = undefined;
      throw error;
    });
    return this.first;
  }

  signIn(input: SignIn): Observable<Session> {
    return this.keep(this.api.call(sessionRoutes.signIn, { body: input }));
  }

  createStudio(input: StudioCreate): Observable<Session> {
    return this.keep(this.api.call(accountRoutes.createStudio, { body: input }));
  }

  lookAtLink(token: string): Observable<Link> {
    return this.api.call(accountRoutes.lookAtLink, { body: { token } });
  }

  takeLink(input: LinkUse): Observable<Session> {
    return this.keep(this.api.call(accountRoutes.takeLink, { body: input }));
  }

  askReset(email: string): Observable<void> {
    return this.api.call(accountRoutes.askReset, { body: { email } });
  }

  signOut(): Observable<void> {
    return this.keep(this.api.call(sessionRoutes.signOut, {})).pipe(map(() => undefined));
  }

  /** Sets a new password; the sessions on other computers end. */
  changePassword(input: PasswordChange): Observable<void> {
    return this.api.call(accountRoutes.changePassword, { body: input });
  }

  /** Ends all sessions, this one too. */
  signOutEverywhere(): Observable<void> {
    return this.api.call(accountRoutes.endSessions, {}).pipe(tap(() => this.expire()));
  }

  /** The studio under its new name. */
  renamed(name: string): void {
    const session = this.current();
    if (session?.signedIn != null) this.current.set({ ...session, signedIn: { ...session.signedIn, studio: { ...session.signedIn.studio, name } } });
  }

  /** Opens another studio that this person teaches in. */
  openStudio(id: string): Observable<void> {
    return this.api.call(accountRoutes.openStudio, { body: { id } });
  }

  /** Keeps what is in hand for the next visit and other devices; without the server it stays here. */
  keepInHand(change: Partial<InHand>): void {
    const session = this.current();
    const before = session?.signedIn?.inHand ?? null;
    if (session?.signedIn == null || before === null) return;
    if (Object.entries(change).every(([key, value]) => before[key as keyof InHand] === value)) return;
    this.current.set({ ...session, signedIn: { ...session.signedIn, inHand: { ...before, ...change } } });
    this.api.call(accountRoutes.keepInHand, { body: change }).subscribe({ error: () => undefined });
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
