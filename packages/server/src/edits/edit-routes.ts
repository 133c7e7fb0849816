import { isLongEdit, type LoggedEdit, type ModelUpgrades } from '@stravel/core';
import { Router } from 'express';
import { HttpError } from '../http/problem';
import type { BakeService } from '../bakes/bake-service';
import { EventStream } from '../http/event-stream';
import { modelVersionOf } from '../http/model-version';
import { wholeNumber } from '../http/whole-number';
import type { JobEvent, JobService } from '../jobs/job-service';
import type { EditRepository, EditText } from './edit-repository';
import type { LevelHistoryService } from './level-history';
import type { EditService } from './edit-service';
import { ReceivedEdit } from './long-edit';

const MAX_EDITS_AN_ANSWER = 1000;
/** Edits in one page of a level's history. */
const MAX_HISTORY_PAGE = 200;

function listText(edits: readonly EditText[]): string {
  return `[${edits.map(({ text }) => text).join(',')}]`;
}

/** Edits of the log with longer texts are told of by their number, characters. */
const MAX_TOLD_TEXT = 200000;

/** Texts of edits that were just logged, so that one is written once however many listen. */
const texts = new WeakMap<LoggedEdit, string>();

function textOf(edit: LoggedEdit): string {
  let text = texts.get(edit);
  if (text === undefined) texts.set(edit, (text = JSON.stringify(edit)));
  return text;
}

/** The log of a collection: append, read, follow. */
export function editRoutes(
  service: EditService,
  repository: EditRepository,
  jobs: JobService,
  bakes: BakeService,
  history: LevelHistoryService,
  upgrades: ModelUpgrades,
): Router {
  const router = Router({ mergeParams: true });

  router.post<{ collection: string }>('/edits', async (request, response) => {
    const model = modelVersionOf(request, upgrades);
    const { edit, sound } = ReceivedEdit.of(request);
    const operations = upgrades.operations(edit.operations, model);
    const { logged, isNew } = await service.append(request.params.collection, { ...edit, operations }, sound);
    response.status(isNew ? 201 : 200).json({ sequence: logged.sequence, at: logged.at });
  });

  router.get<{ collection: string }>('/edits', async (request, response) => {
    const { collection } = request.params;
    const { document, person } = request.query;
    const after = wholeNumber(request.query['after'] ?? '0', 'after');
    if (typeof person === 'string') {
      response.json({ edits: await repository.ofPerson(collection, person, MAX_EDITS_AN_ANSWER) });
    } else if (typeof document === 'string') {
      response.json({ edits: await repository.ofDocument(collection, document, after) });
    } else {
      response
        .type('json')
        .send(`{"edits":${listText(await repository.after(collection, after, MAX_EDITS_AN_ANSWER))}}`);
    }
  });

  router.get<{ collection: string; id: string }>('/edits/:id', async (request, response) => {
    const edit = await repository.textById(request.params.collection, request.params.id);
    if (!edit) throw new HttpError(404, 'EDIT_MISSING', `There is no edit ${request.params.id} in the log.`);
    response.type('json').send(edit.text);
  });

  router.get<{ collection: string; level: string }>('/levels/:level/history', async (request, response) => {
    const { collection, level } = request.params;
    const below = wholeNumber(request.query['below'] ?? '999999999999999', 'below');
    const after = wholeNumber(request.query['after'] ?? '0', 'after');
    const { edits, strata, hasMore } = await history.of(collection, level, { below, after, limit: MAX_HISTORY_PAGE });
    response.type('json').send(`{"edits":${listText(edits)},${JSON.stringify({ strata, hasMore }).slice(1)}`);
  });

  router.get<{ collection: string }>('/events', async (request, response) => {
    const { collection } = request.params;
    let sent = wholeNumber(request.headers['last-event-id'] ?? request.query['after'] ?? '0', 'after');
    const stream = new EventStream(request, response);
    // A page that has seen more than there is was left behind by a restored backup.
    // And one that is older than the server must not go on.
    stream.send('log', { last: await service.lastSequence(collection), model: upgrades.version });
    const waiting: LoggedEdit[] = [];
    let live = false;
    // Who does not say so is sent long edits whole.
    const fetchesLong = request.query['long'] === 'fetched';
    const send = (sequence: number, id: string, isLong: boolean, text: () => string): void => {
      if (sequence <= sent) return;
      sent = sequence;
      if (fetchesLong && isLong) stream.send('long-edit', { sequence, id }, sequence);
      else stream.sendText('edit', text(), sequence);
    };
    const sendKept = ({ sequence, id, text }: EditText): void =>
      send(sequence, id, text.length > MAX_TOLD_TEXT, () => text);
    const sendLogged = (edit: LoggedEdit): void => send(edit.sequence, edit.id, isLongEdit(edit), () => textOf(edit));
    const onEdit = (of: string, edit: LoggedEdit): void => {
      if (of !== collection) return;
      if (live) sendLogged(edit);
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
      const missed = await repository.after(collection, sent, MAX_EDITS_AN_ANSWER);
      missed.forEach(sendKept);
      if (missed.length < MAX_EDITS_AN_ANSWER) break;
    }
    waiting.forEach(sendLogged);
    live = true;
    for (const job of await jobs.unfinished(collection)) onJob(job);
  });

  return router;
}
