import { installLinearPatterns } from '@stravel/core/linear-patterns';
import { endQuietlyWithoutReader } from './print';
import { buildProgram } from './program';

installLinearPatterns();
endQuietlyWithoutReader();
await buildProgram().parseAsync(process.argv);
