import { studentInputSchema } from '@zelpit/contract';
import { Router } from 'express';
import { studioOf } from '../accounts/session';
import { notFound } from '../http/problem';
import { idOf } from '../http/id-of';
import type { StudentRepository } from './student.repository';

export function studentRoutes(students: StudentRepository): Router {
  const router = Router();
  const found = (isThere: boolean): void => {
    if (!isThere) throw notFound('student');
  };

  router.get('/students', async (request, response) => {
    response.json(await students.list(studioOf(request)));
  });

  router.post('/students', async (request, response) => {
    response.status(201).json(await students.add(studioOf(request), studentInputSchema.parse(request.body)));
  });

  router.put('/students/:id', async (request, response) => {
    const input = studentInputSchema.parse(request.body);
    const id = idOf(request, 'student');
    found(await students.rename(studioOf(request), id, input));
    response.json({ id, alias: input.alias });
  });

  router.delete('/students/:id', async (request, response) => {
    found(await students.remove(studioOf(request), idOf(request, 'student')));
    response.status(204).end();
  });

  router.post('/students/:id/restore', async (request, response) => {
    found(await students.restore(studioOf(request), idOf(request, 'student')));
    response.status(204).end();
  });

  return router;
}
