import { auditRoutes } from '@zelpit/contract';
import { respond, type Endpoints } from '../http/endpoints';
import type { AuditRepository } from './audit.repository';

export function serveAudit(endpoints: Endpoints, audit: AuditRepository): void {
  endpoints.serve(auditRoutes.audit, async ({ visitor, query }) => respond(200, await audit.list(visitor.studioId, query)));
}
