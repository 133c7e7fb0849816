import { installLinearPatterns } from '@stravel/core/linear-patterns';

// Loaded apart, once the records are there: the first table needs no pattern.
installLinearPatterns();
