import { checkedEdit, type LoggedEdit } from '@stravel/core';
import { Router } from 'express';
import { HttpError } from '../http/problem';
import type { BakeService } from '../bakes/bake-service';
import { EventStream } from '../http/event-stream';
import { wholeNumber } from '../http/whole-number';
import type { JobEvent, JobService } from '../jobs/job-service';
import type { EditRepository } from './edit-repository';
import type { LevelHistoryService } from './level-history';
import type { EditService } from './edit-service';

const MOST_EDITS_AN_ANSWER = 1000;
/** Edits in one page of a level's history. */
const MAX_HISTORY_PAGE = 200;

/** The log of a collection: append, read, follow. */
export function editRoutes(service: EditService, repository: EditRepository, jobs: JobService, bakes: BakeService, history: LevelHistoryService): Router {
  const router = Router({ mergeParams: true });

  router.post<{ collection: string }>('/edits', async (request, response) => {
    const edit = checkedEdit(request.body);
    const { logged, isNew } = await service.append(request.params.collection, edit);
    response.status(isNew ? 201 : 200).json({ sequence: logged.sequence, at: logged.at });
  });

  router.get<{ collection: string }>('/edits', async (request, response) => {
    const { collection } = request.params;
    const { document, person } = request.query;
    const after = wholeNumber(request.query['after'] ?? '0', 'after');
    if (typeof person === 'string') {
      response.json({ edits: await repository.ofPerson(collection, person, MOST_EDITS_AN_ANSWER) });
    } else if (typeof document === 'string') {
      response.json({ edits: await repository.ofDocument(collection, document, after) });
    } else {
      response.json({ edits: await repository.after(collection, after, MOST_EDITS_AN_ANSWER) });
    }
  });

  router.get<{ collection: string; id: string }>('/edits/:id', async (request, response) => {
    const edit = await repository.byId(request.params.collection, request.params.id);
    if (!edit) throw new HttpError(404, 'EDIT_MISSING', `There is no edit ${request.params.id} in the log.`);
    response.json(edit);
  });

  router.get<{ collection: string; level: string }>('/levels/:level/history', async (request, response) => {
    const { collection, level } = request.params;
    const below = wholeNumber(request.query['below'] ?? '999999999999999', 'below');
    const after = wholeNumber(request.query['after'] ?? '0', 'after');
    response.json(await history.of(collection, level, { below, after, limit: MAX_HISTORY_PAGE }));
  });

  router.get<{ collection: string }>('/events', async (request, response) => {
    const { collection } = request.params;
    let sent = wholeNumber(request.headers['last-event-id'] ?? request.query['after'] ?? '0', 'after');
    const stream = new EventStream(request, response);
    // A page that has seen more than there is was left behind by a restored backup.
    stream.send('log', { last: await service.lastSequence(collection) });
    const waiting: LoggedEdit[] = [];
    let live = false;
    const sendEdit = (edit: LoggedEdit): void => {
      if (edit.sequence <= sent) return;
      sent = edit.sequence;
      stream.send('edit', edit, edit.sequence);
    };
    const onEdit = (of: string, edit: LoggedEdit): void => {
      if (of !== collection) return;
      if (live) sendEdit(edit);
      else waiting.push(edit);
    };
    const onJob = (event: JobEvent): void => {
      if (event.collection === collection) stream.send('job', event);
    };
    const onBake = (of: string, level: string): void => {
      if (of === collection) stream.send('bake', { level });
    };
    service.events.on('edit', onEdit);
    bakes.events.on('bake', onBake);
    jobs.events.on('job', onJob);
    request.on('close', () => {
      service.events.off('edit', onEdit);
      jobs.events.off('job', onJob);
      bakes.events.off('bake', onBake);
    });
    for (;;) {
      const missed = await repository.after(collection, sent, MOST_EDITS_AN_ANSWER);
      missed.forEach(sendEdit);
      if (missed.length < MOST_EDITS_AN_ANSWER) break;
    }
    waiting.forEach(sendEdit);
    live = true;
    for (const job of await jobs.unfinished(collection)) onJob(job);
  });

  return router;
}
