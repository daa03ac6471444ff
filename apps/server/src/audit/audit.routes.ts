import { routes } from '@zelpit/contract';
import { said, type Endpoints } from '../http/endpoints';
import type { AuditRepository } from './audit.repository';

export function auditRoutes(endpoints: Endpoints, audit: AuditRepository): void {
  endpoints.serve(routes.audit, async ({ visitor, query }) => said(200, await audit.list(visitor.studioId, query)));
}
