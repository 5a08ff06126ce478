import type { QueryClient } from '@tanstack/react-query';
import { heldDrives, onChanged } from '../state/open-drives';
import { listen } from './connection';
import { tellHere } from './here';
import { onLive } from './messages';
import type { LiveMessage, Topic } from '@emery/core/api';
import type { Version } from '@emery/core/together';

/** What the interface keeps under each topic, beside what has the topic's own name. */
const KEPT_AS: Readonly<Partial<Record<Topic, readonly string[]>>> = { drive: ['saved drive'], job: [] };

/** Hands on what happens elsewhere to the open drives and to the lists that are shown. */
export function startLive(client: QueryClient): void {
  onLive((message) => {
    if (message.kind === 'drive') takeVersion(message);
    if (message.kind === 'lists') readAnew(client, message);
    if (message.kind === 'hello') {
      for (const { saver } of heldDrives()) saver.catchUp();
      // What was told while nobody listened is not known.
      if (message.gap) void client.invalidateQueries({ predicate: ({ queryKey }) => queryKey[0] !== 'core' });
    }
  });
  // What is kept of a drive on a bench is as it was opened.
  onChanged(({ id }) => void client.invalidateQueries({ queryKey: ['drive', id], refetchType: 'none' }));
  listen(tellHere);
}

function takeVersion({ drive, version }: Extract<LiveMessage, { kind: 'drive' }>): void {
  const open = heldDrives().find(({ opened }) => opened.id === drive);
  if (version) open?.saver.hear(version as Version);
  else open?.saver.catchUp();
}

function readAnew(client: QueryClient, { topics, jobs, drives }: Extract<LiveMessage, { kind: 'lists' }>): void {
  for (const topic of topics)
    for (const key of [topic, ...(KEPT_AS[topic] ?? [])])
      if (topic !== 'job') void client.invalidateQueries({ queryKey: [key] });
  for (const id of drives) void client.invalidateQueries({ queryKey: ['saved drive', id] });
  for (const id of jobs) void client.invalidateQueries({ queryKey: ['job news', id] });
  // The shop's own limits stand in every drive.
  if (topics.includes('shop')) for (const { saver } of heldDrives()) saver.readAnew();
}
