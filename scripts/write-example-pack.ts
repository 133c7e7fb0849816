import { fileURLToPath } from 'node:url';
import { installLinearPatterns } from '@stravel/core/linear-patterns';
import { makeExamplePack } from './example-pack/make-example-pack';

/** Writes docs/formats/example-pack: a small pack, and what a reader has to find in it. */
installLinearPatterns();
await makeExamplePack(fileURLToPath(new URL('../docs/formats/example-pack', import.meta.url)));
