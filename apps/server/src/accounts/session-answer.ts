import type { InHand, Session } from '@zelpit/contract';
import type { Request } from 'express';
import { demoSignIn } from '../demo/demo-studio.data';
import type { Database } from '../database/database';
import type { Visitor } from '../http/endpoints';
import type { AccountRepository } from './account.repository';
import type { Sessions } from './session';
import { isFromThisComputer } from './this-computer';

export interface SessionSettings {
  readonly isDemo: boolean;
  readonly hasOutbox: boolean;
}

/** What a browser is told about who sits in front of it. */
export type AnswerSession = (request: Request, visitor: Visitor | undefined) => Promise<Session>;

export function sessionAnswers(database: Database, accounts: AccountRepository, sessions: Sessions, { isDemo, hasOutbox }: SessionSettings): AnswerSession {
  const inHandOf = async ({ studioId, teacherId }: Visitor): Promise<InHand | null> =>
    teacherId === undefined ? null : database.inStudio(studioId, () => accounts.inHandOf(studioId, teacherId));
  const consentOf = async ({ studioId, studentId, role }: Visitor): Promise<{ guardian: string; on: string } | null> => {
    if (studentId === undefined || role !== 'student') return null;
    const [row] = await database.inStudio(studioId, () =>
      database.query<{ consent: { guardian: string; on: string } | null }>('SELECT consent FROM student WHERE studio_id = $1 AND id = $2', [
        studioId,
        studentId,
      ]),
    );
    return row?.consent == null ? null : { guardian: row.consent.guardian, on: row.consent.on };
  };
  return async (request, visitor) => {
    const isNew = !(await accounts.hasAnyStudio());
    return {
      token: sessions.tokenFor(request),
      demo: isDemo && (await accounts.hasDemoStudio()) ? demoSignIn : null,
      isNew,
      canCreateStudio: isNew || isFromThisComputer(request),
      hasOutbox: hasOutbox && isFromThisComputer(request),
      signedIn:
        visitor === undefined
          ? null
          : {
              role: visitor.role,
              person: { id: visitor.teacherId ?? visitor.studentId ?? '', name: visitor.name },
              studio: { id: visitor.studioId, name: visitor.studioName },
              inHand: await inHandOf(visitor),
              consent: await consentOf(visitor),
            },
    };
  };
}
