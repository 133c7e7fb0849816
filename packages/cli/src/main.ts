import { installLinearPatterns } from '@stravel/core/linear-patterns';
import { buildProgram } from './program';

installLinearPatterns();
await buildProgram().parseAsync(process.argv);
