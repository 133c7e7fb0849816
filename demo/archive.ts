import { writeFileSync } from 'node:fs';
import { plainArchive } from '@stravel/core';
import { cinderbrine } from './cinderbrine';

// Making it takes some seconds, most of them for the levels of detail of its pieces: once for a build, not at each start.
writeFileSync(process.argv[2], plainArchive(await cinderbrine()));
